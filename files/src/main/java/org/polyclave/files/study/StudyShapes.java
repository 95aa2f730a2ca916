package org.polyclave.files.study;

import com.fasterxml.jackson.annotation.JsonIgnore;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonInclude.Include;
import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.polyclave.study.model.BodyPlan;
import org.polyclave.study.model.Mark;
import org.polyclave.study.model.Picture;
import org.polyclave.study.model.Reading;
import org.polyclave.study.model.Scale;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.Specimen;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScope;
import org.polyclave.study.model.StudyScore;

/**
 * How the objects of a study look in JSON: in study files, in the database and in the API. The model knows nothing of it. What
 * has another name in the model than in files is named here.
 *
 * <p>Parts that were added within a version are left out where there is nothing to say, so that older readers still read
 * the file.
 */
final class StudyShapes {
    /** By type of the model, what is to be read of it. */
    static final Map<Class<?>, Class<?>> ALL = Map.ofEntries(
            Map.entry(ScoreValue.class, ValueShape.class),
            Map.entry(StudyScope.class, ScopeShape.class),
            Map.entry(BodyPlan.Part.class, PartShape.class),
            Map.entry(StudyRow.class, RowShape.class),
            Map.entry(StudyRow.Assessment.class, AssessmentShape.class),
            Map.entry(StudyCharacter.class, CharacterShape.class),
            Map.entry(StudyCharacter.StudyState.class, StateShape.class),
            Map.entry(StudyCharacter.LeadPattern.class, WordsShape.class),
            Map.entry(StudyCharacter.Phrase.class, WordsShape.class),
            Map.entry(StudyCharacter.Looking.class, LookingShape.class),
            Map.entry(StudyCharacter.Trust.class, TrustShape.class),
            Map.entry(StudyCharacter.InGroup.class, TrustShape.class),
            Map.entry(StudyCharacter.Use.class, TrustShape.class),
            Map.entry(ScoreValue.Range.class, RangeShape.class),
            Map.entry(StudyScore.class, ScoreShape.class),
            Map.entry(StudyScore.Sample.class, SampleShape.class),
            Map.entry(Picture.class, PictureShape.class),
            Map.entry(Scale.class, ScaleShape.class),
            Map.entry(Reading.class, ReadingShape.class),
            Map.entry(Specimen.Event.class, EventShape.class));

    private StudyShapes() {}

    @JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
    @JsonSubTypes({
        @JsonSubTypes.Type(value = ScoreValue.Unknown.class, name = "unknown"),
        @JsonSubTypes.Type(value = ScoreValue.NotApplicable.class, name = "not-applicable"),
        @JsonSubTypes.Type(value = ScoreValue.Any.class, name = "any"),
        @JsonSubTypes.Type(value = ScoreValue.States.class, name = "states"),
        @JsonSubTypes.Type(value = ScoreValue.Range.class, name = "range"),
        @JsonSubTypes.Type(value = ScoreValue.Months.class, name = "months")
    })
    interface ValueShape {}

    interface RangeShape {
        @JsonInclude(Include.NON_EMPTY)
        List<ScoreValue.Count> counts();
    }

    interface ScopeShape {
        @JsonInclude(Include.NON_EMPTY)
        List<StudyScope.Lookalikes> lookalikes();
    }

    interface PartShape {
        @JsonInclude(Include.NON_EMPTY)
        String within();
    }

    interface RowShape {
        @JsonIgnore
        boolean isSensitive();

        @JsonIgnore
        boolean isSemaphoront();
    }

    interface AssessmentShape {
        @JsonInclude(Include.NON_NULL)
        StudyRow.@Nullable Lowering lowering();
    }

    interface CharacterShape {
        @JsonInclude(value = Include.CUSTOM, valueFilter = Unsaid.class)
        StudyCharacter.LeadPattern lead();
    }

    @JsonInclude(Include.NON_EMPTY)
    interface WordsShape {}

    /** Says of words that nobody wrote that they need not be written: what equals a filter is left out. */
    static final class Unsaid {
        @Override
        public boolean equals(@Nullable Object words) {
            return StudyCharacter.LeadPattern.MADE.equals(words) || StudyCharacter.Phrase.NONE.equals(words);
        }

        @Override
        public int hashCode() {
            return 0;
        }
    }

    interface StateShape {
        @JsonInclude(value = Include.CUSTOM, valueFilter = Unsaid.class)
        StudyCharacter.Phrase phrase();

        @JsonInclude(Include.NON_NULL)
        @Nullable
        Boolean absent();

        @JsonIgnore
        boolean isAbsence();
    }

    interface LookingShape {
        @JsonInclude(Include.NON_EMPTY)
        List<Specimen.Treated> alteredBy();
    }

    @JsonInclude(Include.NON_NULL)
    interface TrustShape {}

    interface ScoreShape {
        @JsonInclude(Include.NON_EMPTY)
        List<Integer> months();

        @JsonInclude(Include.NON_EMPTY)
        String scorer();

        @JsonInclude(Include.NON_EMPTY)
        String date();

        @JsonInclude(Include.NON_EMPTY)
        String concept();

        @JsonInclude(Include.NON_NULL)
        StudyScore.@Nullable Sample sample();

        @JsonInclude(Include.NON_EMPTY)
        List<StudyScore.Confirmation> confirmed();
    }

    @JsonInclude(Include.NON_EMPTY)
    interface SampleShape {}

    interface PictureShape {
        @JsonInclude(Include.NON_EMPTY)
        String specimen();

        @JsonInclude(Include.NON_NULL)
        @Nullable
        Scale scale();

        @JsonInclude(Include.NON_EMPTY)
        String data();
    }

    interface ScaleShape {
        @JsonInclude(Include.NON_NULL)
        Mark.@Nullable Point from();

        @JsonInclude(Include.NON_NULL)
        Mark.@Nullable Point to();

        @JsonInclude(Include.NON_EMPTY)
        String length();

        @JsonInclude(Include.NON_EMPTY)
        String like();

        @JsonInclude(Include.NON_EMPTY)
        String name();
    }

    interface ReadingShape {
        @JsonInclude(Include.NON_EMPTY)
        String item();

        @JsonInclude(Include.NON_NULL)
        @Nullable
        Double value();

        @JsonInclude(Include.NON_EMPTY)
        List<String> states();

        @JsonInclude(Include.NON_NULL)
        @Nullable
        Double uncertainty();

        @JsonInclude(Include.NON_EMPTY)
        String instrument();

        @JsonInclude(Include.NON_EMPTY)
        String by();

        @JsonInclude(Include.NON_EMPTY)
        String date();

        @JsonInclude(Include.NON_NULL)
        @Nullable
        Mark mark();

        @JsonInclude(Include.NON_EMPTY)
        String note();
    }

    interface EventShape {
        @JsonInclude(Include.NON_NULL)
        @Nullable
        Double uncertainty();
    }
}
