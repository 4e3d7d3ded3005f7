/**
 * All formats that come with Morphema: {@link dev.morphema.standard.StandardFormats}, and what they
 * share.
 */
@NullMarked
package dev.morphema.formats;

import org.jspecify.annotations.NullMarked;
