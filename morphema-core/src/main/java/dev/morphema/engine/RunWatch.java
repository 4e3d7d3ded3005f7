package dev.morphema.engine;

/** Follows a run from outside, and can stop it. Asked and told by the thread of the run. */
public interface RunWatch {
    /** Neither follows nor stops. */
    RunWatch NONE = new RunWatch() {
        @Override
        public boolean isCancelled() {
            return false;
        }

        @Override
        public void read(long records) {
            // nobody asks
        }
    };

    /** {@return whether the run is to stop before its next record} */
    boolean isCancelled();

    /** So many more records were read. */
    void read(long records);
}
