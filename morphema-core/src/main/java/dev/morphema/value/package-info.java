/**
 * The values that a mapping works on: absent, null, text, exact number, boolean, date, time,
 * datetime, record, list, and "many", which is what a path over several things gives. All are
 * immutable once built and safe to share.
 *
 * <p>Start with {@link dev.morphema.value.Value}.
 */
@NullMarked
package dev.morphema.value;

import org.jspecify.annotations.NullMarked;
