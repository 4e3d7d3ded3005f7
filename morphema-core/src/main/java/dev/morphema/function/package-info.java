/**
 * The functions of the language: {@link dev.morphema.function.FunctionTable} holds them by name,
 * each with its {@link dev.morphema.function.Signature}, from which the checker and the reference
 * take what they say.
 */
@NullMarked
package dev.morphema.function;

import org.jspecify.annotations.NullMarked;
