/** Inputs that are got by HTTP: begin with {@link dev.morphema.http.WebSource}. */
module dev.morphema.http {
    requires transitive dev.morphema;
    requires dev.morphema.formats;
    requires java.net.http;

    exports dev.morphema.http;
}
