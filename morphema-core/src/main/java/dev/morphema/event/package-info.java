/**
 * The events of what is written, between the rules and the writers of formats: values given as
 * events, values made of events, and the guard of names that would come twice.
 */
@NullMarked
package dev.morphema.event;

import org.jspecify.annotations.NullMarked;
