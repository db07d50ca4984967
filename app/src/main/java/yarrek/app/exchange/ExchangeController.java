package yarrek.app.exchange;

import java.io.IOException;
import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.UUID;
import org.springframework.http.ContentDisposition;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import tools.jackson.databind.json.JsonMapper;
import yarrek.app.office.Office;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.table.Tables;

/** Registers in and out. */
@Controller
class ExchangeController {
    private static final Map<String, String> TYPES = Map.of(
            "csv",
            "text/csv;charset=UTF-8",
            "xlsx",
            "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
            "json",
            "application/json");

    private static final int SHOWN = 300;

    private final Exchange exchange;
    private final Office office;
    private final Clock clock;
    private final JsonMapper json;

    ExchangeController(Exchange exchange, Office office, Clock clock, JsonMapper json) {
        this.exchange = exchange;
        this.office = office;
        this.clock = clock;
        this.json = json;
    }

    @OpenTo(OpenTo.Whom.OFFICE)
    @GetMapping("/exchange")
    String registers(@RequestParam(value = "register", defaultValue = "") String register, Model model) {
        model.addAttribute("registers", exchange.registers());
        model.addAttribute("chosen", register);
        return "exchange/registers";
    }

    @OpenTo(OpenTo.Whom.OFFICE)
    @GetMapping("/exchange/{code:[a-z-]+}.{format:csv|xlsx|json}")
    ResponseEntity<byte[]> out(@PathVariable("code") String code, @PathVariable("format") String format) {
        LocalDate today = LocalDate.now(clock.withZone(office.operator().zone()));
        byte[] content = switch (format) {
            case "csv" -> Tables.csv(exchange.table(code));
            case "xlsx" -> Tables.xlsx(exchange.table(code), code);
            default -> {
                Map<String, Object> file = new LinkedHashMap<>();
                file.put("register", code);
                file.put("version", 1);
                file.put("asOf", today.toString());
                file.put("records", exchange.objects(code));
                yield json.writerWithDefaultPrettyPrinter().writeValueAsBytes(file);
            }
        };
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType(TYPES.get(format)))
                .header(
                        "Content-Disposition",
                        ContentDisposition.attachment()
                                .filename(code + "-" + today + "." + format)
                                .build()
                                .toString())
                .body(content);
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/exchange")
    String upload(
            @RequestParam("register") String register,
            @RequestParam("file") MultipartFile file,
            RedirectAttributes flash)
            throws IOException {
        try {
            UUID id = exchange.upload(
                    register,
                    String.valueOf(file.getOriginalFilename()),
                    file.getBytes(),
                    Viewer.current().name());
            return "redirect:/exchange/uploads/" + id;
        } catch (BrokenFileException e) {
            flash.addFlashAttribute("problem", e.getMessage() + ". Nothing was stored.");
            return "redirect:/exchange?register=" + (register.matches("[a-z-]+") ? register : "");
        }
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @GetMapping("/exchange/uploads/{id}")
    String look(@PathVariable("id") UUID id, @RequestParam MultiValueMap<String, String> params, Model model) {
        return page(exchange.preview(id, mapping(params), params.containsKey("clearing")), model);
    }

    private static String page(Exchange.Preview p, Model model) {
        model.addAttribute("p", p);
        model.addAttribute(
                "rows",
                p.rows().stream()
                        .sorted(java.util.Comparator.comparing(Bringing.RowPlan::outcome))
                        .limit(SHOWN)
                        .toList());
        return "exchange/upload";
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/exchange/uploads/{id}")
    String bringIn(
            @PathVariable("id") UUID id,
            @RequestParam MultiValueMap<String, String> params,
            RedirectAttributes flash,
            Model model) {
        List<String> mapping = mapping(params);
        boolean clearing = params.containsKey("clearing");
        try {
            Exchange.Preview p = exchange.bringIn(id, mapping, clearing, params.containsKey("leaveOut"));
            flash.addFlashAttribute(
                    "told",
                    "Brought in from " + p.fileName() + ": " + p.fresh() + " new, " + p.changed() + " changed, "
                            + p.same() + " as they were, " + p.wrong() + " left out.");
            return "redirect:/exchange?register=" + p.register();
        } catch (IllegalArgumentException e) {
            model.addAttribute("problem", e.getMessage());
        }
        return page(exchange.preview(id, mapping, clearing), model);
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/exchange/uploads/{id}/discard")
    String discard(@PathVariable("id") UUID id) {
        exchange.discard(id);
        return "redirect:/exchange";
    }

    /** Fields by column from "c0", "c1" and so on; null when none is there. */
    private static List<String> mapping(MultiValueMap<String, String> params) {
        TreeMap<Integer, String> byColumn = new TreeMap<>();
        params.toSingleValueMap().forEach((k, v) -> {
            if (k.matches("c\\d{1,3}")) {
                byColumn.put(Integer.parseInt(k.substring(1)), v);
            }
        });
        if (byColumn.isEmpty()) {
            return null;
        }
        List<String> mapping = new ArrayList<>();
        for (int c = 0; c <= byColumn.lastKey(); c++) {
            mapping.add(byColumn.getOrDefault(c, ""));
        }
        return mapping;
    }
}
