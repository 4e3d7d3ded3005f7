/** YAML 1.2 as a format of sources and targets. */
@NullMarked
package dev.morphema.yaml;

import org.jspecify.annotations.NullMarked;
