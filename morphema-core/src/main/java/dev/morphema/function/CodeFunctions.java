package dev.morphema.function;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.Map;
import java.util.Random;
import java.util.UUID;

/** Functions that make codes. */
final class CodeFunctions implements FunctionTable.Family {
    private static final Map<String, String> ALGORITHMS =
            Map.of("sha-256", "SHA-256", "sha-512", "SHA-512", "sha-1", "SHA-1", "md5", "MD5");

    @Override
    public void addTo(FunctionSet functions) {
        functions.scalar("hash(text: text, algorithm?: text): text", CodeFunctions::hash);
        functions.surrounded("uuid(): text", Stability.VOLATILE, CodeFunctions::uuid);
    }

    private static Value hash(Value[] a) {
        String name = a.length > 1 ? TextFunctions.text(a, 1) : "sha-256";
        String algorithm = ALGORITHMS.get(name);
        if (algorithm == null) {
            throw new ProblemException(Problem.error(Code.OUT_OF_RANGE, "There is no algorithm of this name.")
                    .withValue(name)
                    .withHelp("there is md5, sha-1, sha-256 and sha-512"));
        }
        try {
            byte[] digest = MessageDigest.getInstance(algorithm)
                    .digest(TextFunctions.text(a, 0).getBytes(StandardCharsets.UTF_8));
            return TextValue.of(HexFormat.of().formatHex(digest));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java runtime has " + algorithm, e);
        }
    }

    /** A version 4 UUID (RFC 9562) from the run's random numbers. */
    private static Value uuid(Value[] a, Function.Context run) {
        Random random = run.random();
        long high = random.nextLong() & ~0xF000L | 0x4000L;
        long low = random.nextLong() & ~(0xC000L << 48) | 0x8000L << 48;
        return TextValue.of(new UUID(high, low).toString());
    }
}
