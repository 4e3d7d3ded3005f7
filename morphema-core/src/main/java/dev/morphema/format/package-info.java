/**
 * How formats plug in: what a format must offer to be read ({@link
 * dev.morphema.format.SourceFormat}) and to be written ({@link dev.morphema.format.TargetFormat}),
 * and the options it takes. The core knows the interfaces, never a format.
 */
@NullMarked
package dev.morphema.format;

import org.jspecify.annotations.NullMarked;
