package org.polyclave.demo;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.polyclave.core.gate.SafetyGate;
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.testkit.SafetySimulation;
import org.polyclave.formats.study.CompiledStudy;
import org.polyclave.formats.study.Study;
import org.polyclave.formats.study.StudyCompiler;

class DangerTest {
    @Test
    void look() {
        for (Study study : DemoStudies.all()) {
            CompiledStudy c = StudyCompiler.compile(study);
            System.out.println("## " + study.title() + " rows " + c.rows().size());
            List<SafetyGate.Unmet> unmet = SafetyGate.unmet(c.matrix(), 0xFFF);
            for (SafetyGate.Unmet u : unmet) {
                System.out.println(
                        "## " + u.kind() + " " + c.rows().get(u.danger()).name() + " / "
                                + c.rows().get(u.other()).name()
                                + " months " + Integer.toBinaryString(u.months()) + " f " + u.features() + " "
                                + u.characters().stream()
                                        .map(k -> c.characters().get(k).id())
                                        .toList());
            }
            for (int h = 0; h < c.rows().size(); h++) {
                for (int j = 0;
                        j < c.rows().size() && c.matrix().row(h).hazard().isDangerous();
                        j++) {
                    int hh = h;
                    int jj = j;
                    if (!c.matrix().row(j).hazard().isDangerous()) {
                        boolean clean = unmet.stream().noneMatch(u -> u.danger() == hh && u.other() == jj);
                        var out = new SafetySimulation(c.matrix(), Observer.TRAINED, 1, 0.03, 0).run(j, h, 50, 5);
                        System.out.println("## sim " + c.rows().get(h).name() + " / "
                                + c.rows().get(j).name() + " clean " + clean + " " + out.ruledOut());
                    }
                }
            }
        }
    }
}
