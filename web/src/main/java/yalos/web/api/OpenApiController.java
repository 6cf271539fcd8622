package yalos.web.api;

import org.springframework.core.io.ClassPathResource;
import org.springframework.core.io.Resource;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** The description of the services, kept by hand in {@code openapi.yaml} and held against their real answers by a test. */
@RestController
class OpenApiController {
    @GetMapping("/api/openapi")
    ResponseEntity<Resource> description() {
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType("application/yaml"))
                .body(new ClassPathResource("openapi.yaml"));
    }
}
