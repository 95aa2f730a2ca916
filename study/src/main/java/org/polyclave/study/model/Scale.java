package org.polyclave.study.model;

import org.jspecify.annotations.Nullable;
import org.polyclave.study.model.Mark.Point;

/**
 * How a picture's pixels become millimetres: by a bar of known length in it, or by the bar of another picture of the study that
 * was taken with the same objective, camera and pixel size.
 *
 * @param from one end of the bar in pixels; null without a bar
 * @param to its other end; null without a bar
 * @param length what the bar says, with its unit: {@code 1 mm}; empty without a bar
 * @param like id of the picture whose bar counts; empty: the own one
 * @param name under which other pictures can use it: objective and camera; empty: it is not offered
 * @param tilt largest angle in degrees between what is measured and the plane of the bar
 */
public record Scale(@Nullable Point from, @Nullable Point to, String length, String like, String name, double tilt) {

    public Scale {
        length = Defaults.or(length, "");
        like = Defaults.or(like, "");
        name = Defaults.or(name, "");
    }
}
