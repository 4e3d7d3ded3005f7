/**
 * What a run keeps: rows by keys, sorted turns, groups in parts; and the memory it may use for
 * them, with what spills beyond it. It knows values, and nothing of rules.
 */
@NullMarked
package dev.morphema.store;

import org.jspecify.annotations.NullMarked;
