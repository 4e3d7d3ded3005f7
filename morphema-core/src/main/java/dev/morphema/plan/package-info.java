/**
 * What a mapping does, as operators on records: {@link dev.morphema.plan.Planner} makes a {@link
 * dev.morphema.plan.Plan} of a checked mapping, and improves it by {@linkplain
 * dev.morphema.plan.Rule rules}. A plan is immutable, its names are resolved, and it has a stable
 * printed form; it runs nothing.
 */
@NullMarked
package dev.morphema.plan;

import org.jspecify.annotations.NullMarked;
