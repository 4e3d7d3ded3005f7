/**
 * From text to number, date, time and boolean, and back: the declared types of fields and the
 * functions of the same names. Nothing here depends on the locale, the time zone or the calendar of
 * the machine.
 */
@NullMarked
package dev.morphema.convert;

import org.jspecify.annotations.NullMarked;
