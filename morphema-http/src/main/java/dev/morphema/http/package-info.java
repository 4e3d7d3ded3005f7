/** Inputs that are got by HTTP. */
@NullMarked
package dev.morphema.http;

import org.jspecify.annotations.NullMarked;
