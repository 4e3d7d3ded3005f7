package dev.morphema.schemas;

import dev.morphema.shape.ScalarType;
import dev.morphema.shape.ScalarType.Facet;
import dev.morphema.value.Kind;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.apache.xerces.xs.StringList;
import org.apache.xerces.xs.XSAnnotation;
import org.apache.xerces.xs.XSConstants;
import org.apache.xerces.xs.XSObjectList;
import org.apache.xerces.xs.XSSimpleTypeDefinition;
import org.jspecify.annotations.Nullable;

/** What the simple types of XML Schema say of texts. */
final class XsdTypes {
    private static final Pattern DOCUMENTATION =
            Pattern.compile("documentation\\b[^>]*>(.*?)</[^>]*documentation>", Pattern.DOTALL);
    private static final Pattern TAG = Pattern.compile("<[^>]*>");

    private XsdTypes() {}

    /** {@return the types that a text may be of: several for a union} */
    static List<ScalarType> scalars(XSSimpleTypeDefinition type) {
        if (type.getVariety() == XSSimpleTypeDefinition.VARIETY_UNION) {
            List<ScalarType> all = new ArrayList<>();
            XSObjectList members = type.getMemberTypes();
            for (int i = 0; i < members.getLength(); i++) {
                all.addAll(scalars((XSSimpleTypeDefinition) members.item(i)));
            }
            return all;
        }
        boolean atomic = type.getVariety() == XSSimpleTypeDefinition.VARIETY_ATOMIC;
        short kind = atomic ? type.getBuiltInKind() : XSConstants.STRING_DT;
        return List.of(new ScalarType(Kind.TEXT, form(kind), isWhole(kind), codes(type), facets(type, kind)));
    }

    private static Kind form(short kind) {
        return switch (kind) {
            case XSConstants.BOOLEAN_DT -> Kind.BOOLEAN;
            case XSConstants.DECIMAL_DT, XSConstants.FLOAT_DT, XSConstants.DOUBLE_DT -> Kind.NUMBER;
            case XSConstants.DATE_DT -> Kind.DATE;
            case XSConstants.TIME_DT -> Kind.TIME;
            case XSConstants.DATETIME_DT -> Kind.DATETIME;
            default -> isWhole(kind) ? Kind.NUMBER : Kind.TEXT;
        };
    }

    private static boolean isWhole(short kind) {
        return kind >= XSConstants.INTEGER_DT && kind <= XSConstants.POSITIVEINTEGER_DT;
    }

    private static List<String> codes(XSSimpleTypeDefinition type) {
        return texts(type.getLexicalEnumeration());
    }

    private static List<String> texts(@Nullable StringList list) {
        List<String> texts = new ArrayList<>();
        for (int i = 0; list != null && i < list.getLength(); i++) {
            texts.add(list.item(i));
        }
        return texts;
    }

    private static List<Facet> facets(XSSimpleTypeDefinition type, short kind) {
        List<Facet> facets = new ArrayList<>();
        number(type, XSSimpleTypeDefinition.FACET_MINLENGTH).ifPresent(n -> facets.add(Facet.shortest(n.intValue())));
        number(type, XSSimpleTypeDefinition.FACET_MAXLENGTH).ifPresent(n -> facets.add(Facet.longest(n.intValue())));
        number(type, XSSimpleTypeDefinition.FACET_LENGTH).ifPresent(n -> {
            facets.add(Facet.shortest(n.intValue()));
            facets.add(Facet.longest(n.intValue()));
        });
        if (form(kind) == Kind.NUMBER) {
            number(type, XSSimpleTypeDefinition.FACET_MININCLUSIVE)
                    .ifPresent(n -> facets.add(Facet.bound(false, true, n)));
            number(type, XSSimpleTypeDefinition.FACET_MINEXCLUSIVE)
                    .ifPresent(n -> facets.add(Facet.bound(false, false, n)));
            number(type, XSSimpleTypeDefinition.FACET_MAXINCLUSIVE)
                    .ifPresent(n -> facets.add(Facet.bound(true, true, n)));
            number(type, XSSimpleTypeDefinition.FACET_MAXEXCLUSIVE)
                    .ifPresent(n -> facets.add(Facet.bound(true, false, n)));
            number(type, XSSimpleTypeDefinition.FACET_FRACTIONDIGITS)
                    .ifPresent(n -> facets.add(Facet.decimals(n.intValue())));
        }
        // Patterns that XSD gives its own types say nothing that their kind does not.
        if (kind == XSConstants.STRING_DT || kind == XSConstants.NORMALIZEDSTRING_DT || kind == XSConstants.TOKEN_DT) {
            for (String pattern : texts(type.getLexicalPattern())) {
                Facet facet = Patterns.whole(pattern);
                if (facet != null) {
                    facets.add(facet);
                }
            }
        }
        return facets;
    }

    private static Optional<BigDecimal> number(XSSimpleTypeDefinition type, short facet) {
        String text = type.isDefinedFacet(facet) ? type.getLexicalFacetValue(facet) : null;
        try {
            return text == null ? Optional.empty() : Optional.of(new BigDecimal(text));
        } catch (NumberFormatException e) {
            // A bound such as INF bounds nothing.
            return Optional.empty();
        }
    }

    /** {@return what people are told, in one line; null if nothing} */
    static @Nullable String documentation(@Nullable XSObjectList annotations) {
        if (annotations == null || annotations.getLength() == 0) {
            return null;
        }
        Matcher found = DOCUMENTATION.matcher(((XSAnnotation) annotations.item(0)).getAnnotationString());
        if (!found.find()) {
            return null;
        }
        String text = TAG.matcher(found.group(1))
                .replaceAll(" ")
                .replaceAll("\\s+", " ")
                .trim();
        return text.isEmpty() ? null : text;
    }
}
