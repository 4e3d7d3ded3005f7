/** JSON as RFC 8259 describes it, one document or one record a line. */
@NullMarked
package dev.morphema.json;

import org.jspecify.annotations.NullMarked;
