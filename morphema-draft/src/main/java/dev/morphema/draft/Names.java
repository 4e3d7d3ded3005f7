package dev.morphema.draft;

import dev.morphema.syntax.MappingPrinter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;

/** How names are written in a mapping, and how much alike they are. */
final class Names {
    private static final Pattern PLAIN = Pattern.compile("[\\p{L}_][\\p{L}\\p{Nd}_]*(-[\\p{L}_][\\p{L}\\p{Nd}_]*)*");

    /** Words that begin a declaration or a clause, and no statement. */
    private static final Set<String> WORDS =
            Set.of("optional", "runs", "from", "source", "target", "table", "param", "define", "use", "prefix");

    /** Words of one meaning, the first standing for all. */
    private static final List<List<String>> ALIKE = List.of(
            List.of("number", "no", "nr", "num", "id", "ref", "reference", "code", "key", "identifier"),
            List.of("quantity", "qty", "amount", "count", "units", "pieces"),
            List.of("total", "sum", "value"),
            List.of("weight", "mass", "kg"),
            List.of("name", "title", "label", "description", "text"),
            List.of("date", "day", "on", "time", "at"),
            List.of("address", "addr", "street"),
            List.of("born", "birth", "birthday", "birthdate"),
            List.of("zip", "postcode", "postal"),
            List.of("phone", "telephone", "tel"),
            List.of("mail", "email"),
            List.of("price", "cost", "rate"),
            List.of("customer", "client", "buyer"),
            List.of("supplier", "vendor", "seller"),
            List.of("vessel", "ship"),
            List.of("item", "line", "row", "position", "entry", "article", "product"),
            List.of("least", "min", "minimum", "smallest", "lowest", "earliest", "first"),
            List.of("most", "max", "maximum", "greatest", "highest", "latest", "last"),
            List.of("mean", "avg", "average"),
            List.of("start", "begin", "from"),
            List.of("end", "until", "to"),
            List.of("kind", "type", "class", "category"),
            List.of("status", "state"));

    private Names() {}

    private static boolean isWord(String name) {
        return WORDS.contains(name) || MappingPrinter.isWord(name);
    }

    /** {@return whether a text of a mapping names something} */
    static boolean isUsed(String name, String text) {
        return Pattern.compile("\\b" + name + "\\b").matcher(text).find();
    }

    /** {@return whether a name can stand as it is} */
    static boolean isPlain(String name) {
        return PLAIN.matcher(name).matches() && !isWord(name);
    }

    /** {@return a field as a step of a path writes it} */
    static String step(String field) {
        boolean attribute = field.startsWith("@");
        String local = attribute ? field.substring(1) : field;
        String written = PLAIN.matcher(local).matches() ? local : MappingPrinter.raw(local);
        return (attribute ? "@" : "") + written;
    }

    /** {@return a field as a body writes it} */
    static String field(String field) {
        boolean attribute = field.startsWith("@");
        String whole = attribute ? field.substring(1) : field;
        int colon = whole.indexOf(':');
        String prefix = colon > 0 ? whole.substring(0, colon + 1) : "";
        String local = whole.substring(prefix.length());
        boolean plain = PLAIN.matcher(local).matches() && (!isWord(local) || attribute);
        return (attribute ? "@" : "") + prefix + (plain ? local : MappingPrinter.raw(local));
    }

    /**
     * {@return a name for a variable that is not taken yet, made of some name in data}; it is taken
     * from now on.
     */
    static String variable(String wish, Set<String> taken) {
        StringBuilder made = new StringBuilder();
        boolean upper = false;
        for (char c : wish.replaceFirst("^@", "").toCharArray()) {
            if (Character.isLetterOrDigit(c) && c < 128) {
                made.append(made.isEmpty() ? Character.toLowerCase(c) : upper ? Character.toUpperCase(c) : c);
                upper = false;
            } else {
                upper = true;
            }
        }
        String plain = made.toString();
        if (isWord(plain)) {
            plain += "Data";
        } else if (plain.isEmpty() || Character.isDigit(plain.charAt(0))) {
            plain = "x" + plain;
        }
        String free = plain;
        for (int n = 2; !taken.add(free); n++) {
            free = plain + n;
        }
        return free;
    }

    /**
     * {@return the first of several names that is not taken yet, or else one made of the first}; it
     * is taken from now on.
     */
    static String first(Set<String> taken, String... wishes) {
        for (String wish : wishes) {
            if (isPlain(wish) && taken.add(wish)) {
                return wish;
            }
        }
        return variable(wishes[0], taken);
    }

    /** {@return one of several things of a name} */
    static String singular(String numbered) {
        String name = numbered.length() > 3 ? numbered.replaceAll("(?<=[a-z])[0-9]+$", "") : numbered;
        if (name.endsWith("ies") && name.length() > 4) {
            return name.substring(0, name.length() - 3) + "y";
        }
        if (name.endsWith("sses") || name.endsWith("xes")) {
            return name.substring(0, name.length() - 2);
        }
        return name.matches(".*[^siu]s") && name.length() > 3 ? name.substring(0, name.length() - 1) : name;
    }

    /** {@return several things of a name} */
    static String plural(String numbered) {
        String name = numbered.replaceAll("[0-9]+$", "");
        return name.endsWith("s")
                ? name
                : name.endsWith("y") ? name.substring(0, name.length() - 1) + "ies" : name + "s";
    }

    /** {@return how much two names are alike, from 0 to 1} */
    static double likeness(String one, String other) {
        List<String> first = words(one);
        List<String> second = words(other);
        if (first.isEmpty() || second.isEmpty()) {
            return 0;
        }
        if (String.join("", first).equals(String.join("", second))) {
            return 1;
        }
        return (2 * covered(first, second) + covered(second, first)) / (2.0 * first.size() + second.size());
    }

    private static double covered(List<String> words, List<String> by) {
        double sum = 0;
        for (String word : words) {
            double best = 0;
            for (String other : by) {
                best = Math.max(best, wordLikeness(word, other));
            }
            sum += best;
        }
        return sum;
    }

    private static double wordLikeness(String one, String other) {
        if (one.equals(other)) {
            return 1;
        }
        if (ALIKE.stream().anyMatch(group -> group.contains(one) && group.contains(other))) {
            return 0.8;
        }
        String shorter = one.length() < other.length() ? one : other;
        String longer = one.length() < other.length() ? other : one;
        if (shorter.length() >= 3 && longer.startsWith(shorter)) {
            return 0.8;
        }
        boolean ends = shorter.charAt(shorter.length() - 1) == longer.charAt(longer.length() - 1);
        boolean begins = shorter.charAt(0) == longer.charAt(0);
        boolean longEnough = shorter.length() >= 3 || shorter.length() == 2 && ends;
        return longEnough && begins && isAbbreviation(shorter, longer) ? 0.7 : 0;
    }

    /** Whether a word holds the letters of another, in order. */
    private static boolean isAbbreviation(String shorter, String longer) {
        int at = 0;
        for (char c : longer.toCharArray()) {
            if (at < shorter.length() && shorter.charAt(at) == c) {
                at++;
            }
        }
        return at == shorter.length();
    }

    /** {@return the words of a name, in small letters and of one number} */
    static List<String> words(String name) {
        List<String> words = new ArrayList<>();
        String parted = name.replaceAll("(\\p{Ll})(\\p{Lu})", "$1 $2").replaceAll("(\\p{Lu})(\\p{Lu}\\p{Ll})", "$1 $2");
        for (String word : parted.toLowerCase(Locale.ROOT).split("[^\\p{L}\\p{Nd}]+")) {
            if (!word.isEmpty()) {
                words.add(singular(word));
            }
        }
        return words;
    }
}
