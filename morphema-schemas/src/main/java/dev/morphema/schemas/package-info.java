/**
 * Schemas: JSON Schema, XSD, OpenAPI and CSVW as what the check of mappings compares with, and the
 * validation of documents by them. Nothing here ever opens a network connection.
 */
@NullMarked
package dev.morphema.schemas;

import org.jspecify.annotations.NullMarked;
