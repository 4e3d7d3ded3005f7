package dev.morphema.schemas;

import dev.morphema.problem.ProblemException;
import dev.morphema.shape.ScalarType;
import dev.morphema.shape.SchemaReader;
import dev.morphema.shape.SchemaShape;
import dev.morphema.shape.SchemaShape.Field;
import dev.morphema.shape.SchemaShape.Others;
import dev.morphema.shape.SchemaShapeBuilder;
import dev.morphema.value.FieldName;
import dev.morphema.value.Kind;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.apache.xerces.xs.XSAttributeUse;
import org.apache.xerces.xs.XSComplexTypeDefinition;
import org.apache.xerces.xs.XSConstants;
import org.apache.xerces.xs.XSElementDeclaration;
import org.apache.xerces.xs.XSModel;
import org.apache.xerces.xs.XSModelGroup;
import org.apache.xerces.xs.XSNamedMap;
import org.apache.xerces.xs.XSObjectList;
import org.apache.xerces.xs.XSParticle;
import org.apache.xerces.xs.XSSimpleTypeDefinition;
import org.apache.xerces.xs.XSTerm;
import org.apache.xerces.xs.XSTypeDefinition;
import org.apache.xerces.xs.XSWildcard;
import org.jspecify.annotations.Nullable;

/** Shapes of XML Schema 1.0. Types are looked into when somebody asks for them. Not thread-safe. */
final class XsdShapes {
    private final XSModel model;
    private final XsdPlaces places;
    private final Map<XSElementDeclaration, SchemaShape> known = new IdentityHashMap<>();

    private XsdShapes(XSModel model, XsdPlaces places) {
        this.model = model;
        this.places = places;
    }

    /**
     * {@return the shape of a document: a record of its root element}; a fragment names that of
     * several that is meant.
     */
    static SchemaShape read(SchemaPath path, SchemaReader.Files files) throws IOException {
        XsdLoader loader = new XsdLoader(files);
        XSModel model = loader.load(path.file());
        XsdShapes shapes = new XsdShapes(model, loader.places());
        SchemaShapeBuilder document = SchemaShape.builder().record().textual();
        List<XSElementDeclaration> roots = shapes.roots(path.fragment());
        if (roots.isEmpty()) {
            throw new ProblemException(SchemaDocuments.bad(
                    path.file(),
                    path.fragment().isEmpty()
                            ? "The schema has no element that could be the root of a document."
                            : "The schema has no element " + path.fragment() + " at its top level."));
        }
        for (XSElementDeclaration root : roots) {
            document.field(new Field(elementName(root), roots.size() == 1, false, null, () -> shapes.element(root)));
        }
        return document.build();
    }

    /** The elements that can be a root: if some are used by no other, just those. */
    private List<XSElementDeclaration> roots(String name) {
        XSNamedMap elements = model.getComponents(XSConstants.ELEMENT_DECLARATION);
        List<XSElementDeclaration> all = new ArrayList<>();
        for (int i = 0; i < elements.getLength(); i++) {
            XSElementDeclaration element = (XSElementDeclaration) elements.item(i);
            if (!element.getAbstract() && (name.isEmpty() || name.equals(element.getName()))) {
                all.add(element);
            }
        }
        if (all.size() < 2) {
            return all;
        }
        Set<XSElementDeclaration> used = new HashSet<>();
        Set<XSTypeDefinition> seen = new HashSet<>();
        for (XSElementDeclaration element : all) {
            collectUsed(element.getTypeDefinition(), used, seen);
        }
        List<XSElementDeclaration> unused =
                all.stream().filter(element -> !used.contains(element)).toList();
        return unused.isEmpty() ? all : unused;
    }

    private void collectUsed(XSTypeDefinition type, Set<XSElementDeclaration> used, Set<XSTypeDefinition> seen) {
        if (seen.add(type) && type instanceof XSComplexTypeDefinition complex && complex.getParticle() != null) {
            collectUsed(complex.getParticle().getTerm(), used, seen);
        }
    }

    private void collectUsed(XSTerm term, Set<XSElementDeclaration> used, Set<XSTypeDefinition> seen) {
        if (term instanceof XSElementDeclaration element) {
            used.add(element);
            collectUsed(element.getTypeDefinition(), used, seen);
        } else if (term instanceof XSModelGroup group) {
            XSObjectList particles = group.getParticles();
            for (int i = 0; i < particles.getLength(); i++) {
                collectUsed(((XSParticle) particles.item(i)).getTerm(), used, seen);
            }
        }
    }

    private static FieldName elementName(XSElementDeclaration element) {
        String namespace = element.getNamespace();
        return new FieldName(namespace == null ? "" : namespace, element.getName(), false);
    }

    private SchemaShape element(XSElementDeclaration element) {
        SchemaShape shape = known.get(element);
        if (shape == null) {
            SchemaShapeBuilder builder =
                    SchemaShape.builder().place(() -> places.of(element)).textual();
            if (element.getNillable()) {
                builder.nullable();
            }
            builder.description(XsdTypes.documentation(element.getAnnotations()));
            type(element.getTypeDefinition(), builder);
            shape = builder.build();
            known.put(element, shape);
        }
        return shape;
    }

    private void type(XSTypeDefinition type, SchemaShapeBuilder shape) {
        if (type instanceof XSSimpleTypeDefinition simple) {
            XsdTypes.scalars(simple).forEach(shape::scalar);
            return;
        }
        XSComplexTypeDefinition complex = (XSComplexTypeDefinition) type;
        shape.record();
        attributes(complex, shape);
        switch (complex.getContentType()) {
            case XSComplexTypeDefinition.CONTENTTYPE_SIMPLE -> {
                List<ScalarType> text = XsdTypes.scalars(complex.getSimpleType());
                text.forEach(shape::scalar);
                ownText(text, shape);
            }
            case XSComplexTypeDefinition.CONTENTTYPE_MIXED -> {
                ownText(List.of(ScalarType.of(Kind.TEXT)), shape);
                children(complex.getParticle(), shape);
            }
            case XSComplexTypeDefinition.CONTENTTYPE_ELEMENT -> children(complex.getParticle(), shape);
            default -> {
                // no content
            }
        }
    }

    private static void ownText(List<ScalarType> types, SchemaShapeBuilder shape) {
        SchemaShapeBuilder text = SchemaShape.builder().textual();
        types.forEach(text::scalar);
        SchemaShape own = text.build();
        shape.field(new Field(FieldName.OWN_TEXT, false, false, null, () -> own));
    }

    private void attributes(XSComplexTypeDefinition complex, SchemaShapeBuilder shape) {
        XSObjectList uses = complex.getAttributeUses();
        for (int i = 0; i < uses.getLength(); i++) {
            XSAttributeUse use = (XSAttributeUse) uses.item(i);
            SchemaShapeBuilder held = SchemaShape.builder()
                    .place(() -> places.of(use.getAttrDeclaration()))
                    .textual();
            XsdTypes.scalars(use.getAttrDeclaration().getTypeDefinition()).forEach(held::scalar);
            held.description(XsdTypes.documentation(use.getAttrDeclaration().getAnnotations()));
            SchemaShape attribute = held.build();
            shape.field(new Field(
                    new FieldName(
                            use.getAttrDeclaration().getNamespace(),
                            use.getAttrDeclaration().getName(),
                            true),
                    use.getRequired(),
                    false,
                    use.getConstraintType() == XSConstants.VC_FIXED
                            ? use.getValueConstraintValue().getNormalizedValue()
                            : null,
                    () -> attribute));
        }
        if (complex.getAttributeWildcard() != null) {
            shape.others(Others.ANY);
        }
    }

    private void children(@Nullable XSParticle particle, SchemaShapeBuilder shape) {
        if (particle == null) {
            return;
        }
        Children children = new Children(shape);
        children.add(particle, true, false);
        if (children.ordered) {
            shape.ordered();
        }
    }

    /** Collects the child elements of a type, through its groups. */
    private final class Children {
        private final SchemaShapeBuilder shape;
        private final Set<FieldName> seen = new HashSet<>();
        private boolean ordered = true;

        Children(SchemaShapeBuilder shape) {
            this.shape = shape;
        }

        /**
         * @param required whether what is around is always there
         * @param repeated whether it may be there more than once
         */
        void add(XSParticle particle, boolean required, boolean repeated) {
            boolean always = required && particle.getMinOccurs() > 0;
            boolean several = repeated || particle.getMaxOccursUnbounded() || particle.getMaxOccurs() > 1;
            XSTerm term = particle.getTerm();
            if (particle.getMaxOccurs() == 0 && !particle.getMaxOccursUnbounded()) {
                return;
            }
            if (term instanceof XSElementDeclaration element) {
                element(element, always, several);
            } else if (term instanceof XSWildcard) {
                shape.others(Others.ANY);
            } else if (term instanceof XSModelGroup group) {
                XSObjectList particles = group.getParticles();
                boolean choice = group.getCompositor() == XSModelGroup.COMPOSITOR_CHOICE && particles.getLength() > 1;
                ordered &=
                        group.getCompositor() != XSModelGroup.COMPOSITOR_ALL && !(several && particles.getLength() > 1);
                for (int i = 0; i < particles.getLength(); i++) {
                    add((XSParticle) particles.item(i), always && !choice, several);
                }
            }
        }

        private void element(XSElementDeclaration element, boolean required, boolean repeated) {
            XSObjectList substitutes = model.getSubstitutionGroup(element);
            boolean replaced = substitutes != null && substitutes.getLength() > 0;
            if (!element.getAbstract()) {
                field(element, required && !replaced, repeated);
            }
            for (int i = 0; replaced && i < substitutes.getLength(); i++) {
                XSElementDeclaration other = (XSElementDeclaration) substitutes.item(i);
                if (!other.getAbstract()) {
                    field(other, false, repeated);
                }
            }
        }

        private void field(XSElementDeclaration element, boolean required, boolean repeated) {
            FieldName name = elementName(element);
            boolean again = !seen.add(name);
            ordered &= !again;
            String fixed = element.getConstraintType() == XSConstants.VC_FIXED
                    ? element.getValueConstraintValue().getNormalizedValue()
                    : null;
            shape.field(new Field(name, required, repeated || again, fixed, () -> XsdShapes.this.element(element)));
        }
    }
}
