package dev.morphema.check;

import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/** What functions of this language are called in other languages. */
final class OtherNames {
    private static final Map<String, String> PROPOSALS = new HashMap<>();

    static {
        put("length(x)", "len", "strlen", "charLength", "char_length");
        put("count(x)", "size", "countItems");
        put("substring(x, start, length)", "substr", "mid", "slice");
        put("upper(x)", "toUpperCase", "toUpper", "uppercase", "ucase", "upcase");
        put("lower(x)", "toLowerCase", "toLower", "lowercase", "lcase", "downcase");
        put("trim(x)", "strip", "ltrim", "rtrim", "trimStart", "trimEnd");
        put("text(x)", "string", "str", "toString", "toText", "toChar", "to_char", "char", "varchar");
        put("number(x)", "toNumber", "to_number", "parseNumber", "float", "parseFloat", "double", "decimal", "num");
        put("integer(x)", "int", "parseInt", "toInt", "toInteger", "long");
        put("boolean(x, 'Y', 'N')", "bool", "toBoolean", "parseBoolean");
        put("date(x, pattern)", "parseDate", "toDate", "to_date", "strptime", "dateParse");
        put("datetime(x, pattern)", "timestamp", "toTimestamp", "to_timestamp", "parseDateTime", "dateTime");
        put("format(x, pattern)", "formatDate", "dateFormat", "date_format", "formatNumber", "strftime", "sprintf");
        put("plus(x, 'P1D')", "addDays", "addMonths", "dateAdd", "date_add", "plusDays", "minusDays");
        put("days(from, to)", "dateDiff", "date_diff", "daysBetween");
        put("today()", "currentDate", "current_date", "curdate");
        put("now()", "sysdate", "getDate", "currentTimestamp", "current_timestamp", "currentDateTime");
        put("avg(x)", "average", "mean");
        put("sum(x)", "total", "sumOf");
        put("min(x)", "minimum", "least");
        put("max(x)", "maximum", "greatest");
        put("distinct(x)", "unique", "uniq", "distinctValues");
        put("sorted(x)", "sort", "order", "orderBy");
        put("reversed(x)", "reverse");
        put("nth(x, position)", "item", "get", "elementAt", "at");
        put("take n in a for, or first(x)", "limit", "top", "head");
        put("ceiling(x)", "ceil");
        put("power(x, n)", "pow");
        put("x % n", "mod", "modulo", "rem");
        put("replaceAll(x, '[0-9]', '')", "regexReplace", "regexpReplace", "regexp_replace", "gsub", "translate");
        put("matches(x, '[0-9]+')", "regexMatch", "regexp", "regexpLike", "regexp_like", "isMatch", "test", "like");
        put("extract(x, '([0-9]+)')", "regexExtract", "regexpSubstr", "regexp_substr");
        put("contains(x, part)", "includes", "inStr", "indexOf", "index", "find", "search", "locate");
        put("before(x, mark) or after(x, mark)", "substringBefore", "substringAfter");
        put("padLeft(x, 5, '0')", "padStart", "lpad", "zfill");
        put("padRight(x, 5)", "padEnd", "rpad");
        put("blank(x)", "isBlank", "isEmpty", "isNull", "empty");
        put("exists(x)", "isDefined", "isPresent", "has", "isNotNull", "defined");
        put("filled(x)", "nullIf", "emptyToNull");
        put("a ?? b", "coalesce", "nvl", "ifNull", "isNullOr", "defaultIfEmpty", "orElse", "default");
        put("if condition then a else b", "iif", "choose", "decode", "case", "when", "switch");
        put("join(x, \", \")", "concatenate", "stringJoin", "string_join", "implode", "listAgg", "group_concat");
        put("split(x, mark)", "tokenize", "explode");
        put("uuid()", "guid", "newGuid", "generateUuid", "randomUuid");
        put("hash(x, 'md5')", "md5", "sha1", "sha256", "sha512", "digest");
        put("json(x)", "parseJson", "fromJson", "jsonParse");
        put("xml(x)", "parseXml", "fromXml");
        put("table[key].column", "lookup", "vlookup", "xlookup", "map");
        put("name(x)", "localName", "local_name", "nodeName");
        put("keys(x)", "fields", "fieldNames", "names");
        put("fail(message)", "error", "raise", "throw", "abort");
    }

    private OtherNames() {}

    private static void put(String ours, String... others) {
        for (String other : others) {
            PROPOSALS.put(folded(other), ours);
        }
    }

    /** {@return what to write here for a function of another language, if it is one} */
    static Optional<String> proposal(String name) {
        return Optional.ofNullable(PROPOSALS.get(folded(name))).map(ours -> "here it is written " + ours);
    }

    private static String folded(String name) {
        return name.replace("_", "").toLowerCase(Locale.ROOT);
    }
}
