package dev.morphema.samples;

/**
 * One place at which a document is not as expected.
 *
 * @param path of the place, such as {@code /ArrivalNotice/Call[2]/Vessel}
 * @param expected what should be there; "nothing" if there should be nothing
 * @param actual what is there
 */
public record Difference(String path, String expected, String actual) {
    static final String NOTHING = "nothing";
}
