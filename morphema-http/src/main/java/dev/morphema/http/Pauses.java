package dev.morphema.http;

import java.time.Duration;

/** Waits between two attempts. */
@FunctionalInterface
interface Pauses {
    /** Really waits. */
    Pauses REAL = pause -> Thread.sleep(pause.toMillis());

    void pause(Duration pause) throws InterruptedException;
}
