package dev.morphema.examples.spring;

import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;

/** Answers for messages that cannot be mapped, as problem documents (RFC 9457). */
@RestControllerAdvice
class ProblemAdvice {
    @ExceptionHandler
    ProblemDetail unprocessable(ProblemException e) {
        ProblemDetail detail = ProblemDetail.forStatusAndDetail(
                HttpStatus.UNPROCESSABLE_CONTENT, e.problem().message());
        detail.setTitle("The message cannot be mapped.");
        List<Map<String, String>> errors = new ArrayList<>();
        e.problems().forEach(problem -> errors.add(error(problem)));
        detail.setProperty("errors", errors);
        return detail;
    }

    private static Map<String, String> error(Problem problem) {
        Map<String, String> error = new LinkedHashMap<>();
        error.put("code", problem.code().printed());
        error.put("message", problem.message());
        if (problem.rule() != null) {
            error.put("rule", problem.rule().toString());
        }
        if (problem.input() != null) {
            error.put("place", problem.input().toString());
        }
        return error;
    }
}
