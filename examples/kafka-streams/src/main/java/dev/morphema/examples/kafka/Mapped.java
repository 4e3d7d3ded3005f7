package dev.morphema.examples.kafka;

/**
 * What became of one message.
 *
 * @param isMapped whether it could be mapped
 * @param message what it was mapped to, or itself
 */
record Mapped(boolean isMapped, byte[] message) {}
