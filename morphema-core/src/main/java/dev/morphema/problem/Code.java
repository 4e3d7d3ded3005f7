package dev.morphema.problem;

import java.util.Locale;

/**
 * The stable short names of all problems. Printed in lower case with hyphens: {@code unknown-name}.
 */
public enum Code {
    // the mapping, as text
    VERSION(Area.MAPPING),
    UNEXPECTED_CHARACTER(Area.MAPPING),
    OPEN_TEXT(Area.MAPPING),
    BAD_ESCAPE(Area.MAPPING),
    BAD_TEMPLATE(Area.MAPPING),
    MISSING_BRACE(Area.MAPPING),
    EXTRA_BRACE(Area.MAPPING),
    SYNTAX(Area.MAPPING),
    TOO_DEEP(Area.MAPPING),
    // the mapping, by meaning
    DUPLICATE_NAME(Area.MAPPING),
    HIDDEN_NAME(Area.MAPPING),
    UNKNOWN_NAME(Area.MAPPING),
    UNKNOWN_FUNCTION(Area.MAPPING),
    UNKNOWN_FORMAT(Area.MAPPING),
    UNKNOWN_OPTION(Area.MAPPING),
    UNKNOWN_TYPE(Area.MAPPING),
    UNKNOWN_FIELD(Area.MAPPING),
    UNKNOWN_PREFIX(Area.MAPPING),
    AMBIGUOUS_NAME(Area.MAPPING),
    ARGUMENTS(Area.MAPPING),
    WRONG_KIND(Area.MAPPING),
    ONE_OR_MANY(Area.MAPPING),
    TARGET_FORM(Area.MAPPING),
    DUPLICATE_FIELD(Area.MAPPING),
    CYCLE(Area.MAPPING),
    UNUSED(Area.MAPPING),
    TODO(Area.MAPPING),
    TEXT_COMPARED(Area.MAPPING),
    DOUBTFUL_PATTERN(Area.MAPPING),
    // the mapping, by the schema of a source or target
    BAD_SCHEMA(Area.MAPPING),
    NOT_IN_SCHEMA(Area.MAPPING),
    REQUIRED_FIELD(Area.MAPPING),
    FIELD_ORDER(Area.MAPPING),
    VALUE_NOT_ALLOWED(Area.MAPPING),
    // the data
    NOT_A_NUMBER(Area.DATA),
    NOT_A_DATE(Area.DATA),
    NOT_A_BOOLEAN(Area.DATA),
    NOT_CONVERTIBLE(Area.DATA),
    KIND(Area.DATA),
    MANY(Area.DATA),
    DIVISION_BY_ZERO(Area.DATA),
    OUT_OF_RANGE(Area.DATA),
    MISSING_VALUE(Area.DATA),
    DUPLICATE_KEY(Area.DATA),
    MISSING_KEY(Area.DATA),
    REPEATED_FIELD(Area.DATA),
    FAILED(Area.DATA),
    REQUIREMENT(Area.DATA),
    NOT_WRITABLE(Area.DATA),
    DOCUMENT_NAME(Area.DATA),
    MISSING_COLUMN(Area.DATA),
    MISSING_FIELD(Area.DATA),
    MISMATCH(Area.DATA),
    INVALID(Area.DATA),
    NO_RECORDS(Area.DATA),
    BAD_CSV(Area.DATA),
    BAD_JSON(Area.DATA),
    BAD_XML(Area.DATA),
    BAD_YAML(Area.DATA),
    BAD_LINE(Area.DATA),
    BAD_WORKBOOK(Area.DATA),
    BAD_ENCODING(Area.DATA),
    LIMIT(Area.DATA),
    MEMORY(Area.DATA),
    // the call
    UNKNOWN_SOURCE(Area.USAGE),
    UNKNOWN_TARGET(Area.USAGE),
    MISSING_INPUT(Area.USAGE),
    USAGE(Area.USAGE),
    PARAMETER(Area.USAGE),
    CANCELLED(Area.USAGE),
    // files and streams
    FILE_NOT_FOUND(Area.FILE),
    NOT_READABLE(Area.FILE),
    NOT_ALLOWED(Area.FILE),
    NOT_WRITTEN(Area.FILE);

    private final Area area;

    Code(Area area) {
        this.area = area;
    }

    /** {@return whose matter this problem is} */
    public Area area() {
        return area;
    }

    /** {@return the name as it is printed, such as {@code unknown-name}} */
    public String printed() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }
}
