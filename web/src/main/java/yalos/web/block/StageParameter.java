package yalos.web.block;

import org.springframework.core.convert.converter.Converter;
import org.springframework.stereotype.Component;
import yalos.web.shell.NotThere;

/** Stages by their key in addresses and forms. */
@Component
class StageParameter implements Converter<String, Stage> {
    @Override
    public Stage convert(String key) {
        return Stage.ofKey(key).orElseThrow(() -> new NotThere("The stage “" + key + "” is not built yet."));
    }
}
