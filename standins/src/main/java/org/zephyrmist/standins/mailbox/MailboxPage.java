package org.zephyrmist.standins.mailbox;

import java.util.List;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;

/** What came, for people and for programs. */
@Controller
class MailboxPage {
  private final Mailbox mailbox;

  MailboxPage(Mailbox mailbox) {
    this.mailbox = mailbox;
  }

  @GetMapping("/mailbox")
  String page(Model model) {
    model.addAttribute("mails", mailbox.newest());
    model.addAttribute("closed", mailbox.closed());
    return "mailbox";
  }

  @GetMapping("/api/mailbox")
  @ResponseBody
  List<Mailbox.Received> mails() {
    return mailbox.newest();
  }

  /** Takes no mail for a while, or takes it again. */
  @PostMapping("/mailbox/closed")
  String closed(@RequestParam boolean closed) {
    mailbox.close(closed);
    return "redirect:/mailbox";
  }
}
