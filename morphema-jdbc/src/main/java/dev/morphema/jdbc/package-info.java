/** Databases as sources and targets of mappings, through JDBC. */
@NullMarked
package dev.morphema.jdbc;

import org.jspecify.annotations.NullMarked;
