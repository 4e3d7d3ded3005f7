package dev.morphema.testing;

import java.lang.reflect.AnnotatedElement;
import java.lang.reflect.AnnotatedParameterizedType;
import java.lang.reflect.AnnotatedType;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Method;
import java.lang.reflect.Parameter;
import java.lang.reflect.Type;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.extension.Extension;
import org.junit.jupiter.api.extension.ExtensionContext;
import org.junit.jupiter.api.extension.InvocationInterceptor;
import org.junit.jupiter.api.extension.ParameterContext;
import org.junit.jupiter.api.extension.ParameterResolver;
import org.junit.jupiter.api.extension.ReflectiveInvocationContext;
import org.junit.jupiter.api.extension.TestTemplateInvocationContext;
import org.junit.jupiter.api.extension.TestTemplateInvocationContextProvider;
import org.opentest4j.TestAbortedException;

/** Runs a property with many values, in one test; a failure says with which. */
final class PropertyExtension implements TestTemplateInvocationContextProvider {
    private static final String SEED = "properties.seed";
    private static final String TIMES = "properties.times";

    @Override
    public boolean supportsTestTemplate(ExtensionContext context) {
        return true;
    }

    @Override
    public Stream<TestTemplateInvocationContext> provideTestTemplateInvocationContexts(ExtensionContext context) {
        return Stream.of(new Tries(context.getRequiredTestMethod()));
    }

    private static long seed(Method property) {
        String given = System.getProperty(SEED, "");
        if (given.equals("random")) {
            return System.nanoTime();
        }
        return given.isEmpty()
                ? (property.getDeclaringClass().getSimpleName() + property.getName()).hashCode()
                : Long.parseLong(given);
    }

    private static final class Tries
            implements TestTemplateInvocationContext, ParameterResolver, InvocationInterceptor {
        private final Method property;
        private final long seed;
        private final Random random;
        private final List<Gen<?>> gens = new ArrayList<>();

        Tries(Method property) {
            this.property = property;
            this.seed = seed(property);
            this.random = new Random(seed);
        }

        @Override
        public String getDisplayName(int index) {
            return property.getName();
        }

        @Override
        public List<Extension> getAdditionalExtensions() {
            return List.of(this);
        }

        @Override
        public boolean supportsParameter(ParameterContext parameter, ExtensionContext context) {
            return parameter.isAnnotated(ForAll.class);
        }

        /** The values of the first try; the others are made when it is over. */
        @Override
        public Object resolveParameter(ParameterContext parameter, ExtensionContext context) {
            Gen<?> gen = gen(parameter.getParameter(), context.getRequiredTestInstance());
            gens.add(gen);
            return gen.next(random);
        }

        @Override
        public void interceptTestTemplateMethod(
                Invocation<Void> invocation, ReflectiveInvocationContext<Method> call, ExtensionContext context)
                throws Throwable {
            List<Object> arguments = call.getArguments();
            try {
                invocation.proceed();
                double times = Double.parseDouble(System.getProperty(TIMES, "1"));
                int tries =
                        (int) Math.ceil(property.getAnnotation(Property.class).tries() * times);
                property.setAccessible(true);
                for (int i = 1; i < tries && !gens.isEmpty(); i++) {
                    arguments = new ArrayList<>();
                    for (Gen<?> gen : gens) {
                        arguments.add(gen.next(random));
                    }
                    property.invoke(context.getRequiredTestInstance(), arguments.toArray());
                }
            } catch (InvocationTargetException e) {
                throw failed(e.getCause(), arguments);
            } catch (AssertionError | RuntimeException e) {
                throw failed(e, arguments);
            }
        }

        private Throwable failed(Throwable cause, List<Object> arguments) {
            if (cause instanceof TestAbortedException) {
                return cause;
            }
            String values = arguments.stream().map(Tries::shown).reduce("", (a, b) -> a + "\n  " + b);
            AssertionError failed =
                    new AssertionError(cause.getMessage() + "\nwith -D" + SEED + "=" + seed + " and" + values, cause);
            failed.setStackTrace(cause.getStackTrace());
            return failed;
        }

        private static String shown(Object value) {
            return value instanceof byte[] bytes ? Arrays.toString(bytes) : String.valueOf(value);
        }

        private static Gen<?> gen(Parameter parameter, Object test) {
            String named = parameter.getAnnotation(ForAll.class).value();
            From from = parameter.getAnnotation(From.class);
            if (!named.isEmpty() || from != null) {
                Gen<?> provided = provided(named.isEmpty() ? from.value() : named, test);
                Size size = parameter.getAnnotation(Size.class);
                return size != null && provided instanceof Gen.Many<?> many ? sized(many, size) : provided;
            }
            return byType(parameter.getAnnotatedType(), parameter, test);
        }

        private static Gen<?> sized(Gen.Many<?> many, Size size) {
            return size.value() >= 0
                    ? many.ofSize(size.value())
                    : many.ofMinSize(size.min()).ofMaxSize(size.max());
        }

        private static Gen<?> byType(AnnotatedType annotated, AnnotatedElement limits, Object test) {
            From from = annotated.getAnnotation(From.class);
            if (from != null) {
                return provided(from.value(), test);
            }
            if (annotated instanceof AnnotatedParameterizedType list) {
                Gen.Many<?> many = byType(list.getAnnotatedActualTypeArguments()[0], From.class, test)
                        .list();
                Size size = limits.getAnnotation(Size.class);
                return size == null ? many : sized(many, size);
            }
            Type type = annotated.getType();
            if (type == byte[].class) {
                Gen.Many<byte[]> bytes = Gens.bytes().array(byte[].class);
                Size size = limits.getAnnotation(Size.class);
                return size == null ? bytes : sized(bytes, size);
            }
            if (type == int.class || type == Integer.class) {
                IntRange range = limits.getAnnotation(IntRange.class);
                return range == null ? Gens.integers() : Gens.integers().between(range.min(), range.max());
            }
            if (type == long.class || type == Long.class) {
                LongRange range = limits.getAnnotation(LongRange.class);
                return range == null ? Gens.longs() : Gens.longs().between(range.min(), range.max());
            }
            if (type == boolean.class || type == Boolean.class) {
                return Gens.booleans();
            }
            if (type == byte.class || type == Byte.class) {
                return Gens.bytes();
            }
            if (type == String.class) {
                return Gens.strings();
            }
            if (type == BigDecimal.class) {
                return Gens.bigDecimals();
            }
            throw new IllegalArgumentException("nothing makes values of " + type);
        }

        private static Gen<?> provided(String name, Object test) {
            for (Class<?> at = test.getClass(); at != null; at = at.getSuperclass()) {
                for (Method method : at.getDeclaredMethods()) {
                    if (method.getName().equals(name) && method.isAnnotationPresent(Provide.class)) {
                        try {
                            method.setAccessible(true);
                            return (Gen<?>) method.invoke(test);
                        } catch (ReflectiveOperationException e) {
                            throw new IllegalStateException("the method " + name + " gives nothing", e);
                        }
                    }
                }
            }
            throw new IllegalArgumentException("no method " + name + " provides values");
        }
    }
}
