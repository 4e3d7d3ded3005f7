package dev.morphema.schemas;

import tools.jackson.databind.JsonNode;

/**
 * A part of a schema document.
 *
 * @param file of the document, to which references in it are relative
 * @param root of the document
 * @param json the part
 */
record SchemaNode(String file, JsonNode root, JsonNode json) {
    /** {@return another part of the same document} */
    SchemaNode with(JsonNode part) {
        return new SchemaNode(file, root, part);
    }
}
