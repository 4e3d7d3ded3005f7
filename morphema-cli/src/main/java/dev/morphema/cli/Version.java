package dev.morphema.cli;

import picocli.CommandLine.IVersionProvider;

/** Tells the version, as the build wrote it into the jar. */
final class Version implements IVersionProvider {
    @Override
    public String[] getVersion() {
        String version = Main.class.getPackage().getImplementationVersion();
        return new String[] {"morphema " + (version == null ? "unreleased" : version) + ", language version 1"};
    }
}
