/** The rules and the computation of Polyclave, in plain Java. */
module org.polyclave.core {
    exports org.polyclave.core.run;
    exports org.polyclave.core.statistics;
    exports org.polyclave.core.matrix;
    exports org.polyclave.core.evidence;
    exports org.polyclave.core.margin;
    exports org.polyclave.core.separation;
    exports org.polyclave.core.diagnosis;
    exports org.polyclave.core.gate;
    exports org.polyclave.core.key;
    exports org.polyclave.core.identify;
    exports org.polyclave.core.reading;
    exports org.polyclave.core.check;
    exports org.polyclave.core.measuring;
    exports org.polyclave.core.agreement;
}
