/**
 * Sample cases: a mapping with inputs and the outputs that are expected of them. {@link
 * dev.morphema.samples.SampleCase} finds and runs them; documents are compared by meaning, not by
 * bytes.
 */
@NullMarked
package dev.morphema.samples;

import org.jspecify.annotations.NullMarked;
