package dev.morphema.schemas;

/**
 * What names a schema.
 *
 * @param file its file, relative to what names it
 * @param fragment the part of the file that is meant; empty for all of it
 */
record SchemaPath(String file, String fragment) {
    /** {@return the parts of a text such as {@code api.yaml#/components/schemas/Call}} */
    static SchemaPath parse(String text) {
        int hash = text.indexOf('#');
        return hash < 0 ? new SchemaPath(text, "") : new SchemaPath(text.substring(0, hash), text.substring(hash + 1));
    }

    /** {@return a file that another names relative to itself} */
    static String relative(String from, String named) {
        String folder = from.contains("/") ? from.substring(0, from.lastIndexOf('/') + 1) : "";
        String joined = folder + named;
        while (joined.contains("/./")) {
            joined = joined.replace("/./", "/");
        }
        return joined.startsWith("./") ? joined.substring(2) : joined.replaceAll("[^/.]+/\\.\\./", "");
    }
}
