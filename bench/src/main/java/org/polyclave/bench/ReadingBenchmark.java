package org.polyclave.bench;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import org.polyclave.files.table.ReadingTable;
import org.polyclave.study.measuring.ReadingSheet;
import org.polyclave.study.measuring.ReadingSummary;

/** Readings of specimens of 20 rows, one reading a line: reading the table, and summarising it. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SampleTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(value = 1, jvmArgs = "-Xmx1g")
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
public class ReadingBenchmark {
    private static final int ROWS = 20;
    private static final int CHARACTERS = 10;

    @Param({"10000", "50000"})
    private int readings;

    private byte[] table = {};
    private ReadingSheet read = new ReadingSheet(List.of(), List.of(), List.of());

    @Setup
    public void make() {
        Random random = new Random(8);
        StringBuilder text = new StringBuilder("specimen,row,event,item,character,value,unit\n");
        for (int i = 0; i < readings; i++) {
            int specimen = i / (3 * CHARACTERS);
            double value = (5 + i % CHARACTERS) * Math.exp(0.15 * random.nextGaussian());
            text.append("S-%d,Row %d,walk %d,leaf %d,character %d,%.1f,mm%n"
                    .formatted(specimen, specimen % ROWS, specimen % 30, i % 3, i / 3 % CHARACTERS, value));
        }
        table = text.toString().getBytes(StandardCharsets.UTF_8);
        read = read();
    }

    @Benchmark
    public ReadingSheet read() {
        return ReadingTable.read(table, "readings.csv");
    }

    @Benchmark
    public List<ReadingSummary> summarize() {
        return ReadingSummary.of(read, List.of("row"));
    }
}
