import dev.morphema.format.SourceFormat;
import dev.morphema.format.TargetFormat;
import dev.morphema.yaml.YamlSource;
import dev.morphema.yaml.YamlTarget;

/** YAML as a format of sources and targets, found by itself on the class or module path. */
module dev.morphema.yaml {
    requires transitive dev.morphema;
    requires org.snakeyaml.engine;

    exports dev.morphema.yaml;

    provides SourceFormat with
            YamlSource;
    provides TargetFormat with
            YamlTarget;
}
