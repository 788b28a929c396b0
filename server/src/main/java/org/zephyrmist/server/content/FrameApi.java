package org.zephyrmist.server.content;

import java.util.List;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.server.people.SignedIn;

/** Hosts whose frames may stand in texts. */
@RestController
@RequestMapping(path = "/api/frames", produces = MediaType.APPLICATION_JSON_VALUE)
class FrameApi {
  private final FrameHosts hosts;

  FrameApi(FrameHosts hosts) {
    this.hosts = hosts;
  }

  @GetMapping
  @PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
  List<FrameHosts.Approved> list() {
    return hosts.list();
  }

  @PutMapping("/{host}")
  @PreAuthorize("hasRole('ADMINISTRATOR')")
  void approve(@PathVariable String host, @AuthenticationPrincipal SignedIn who) {
    hosts.approve(host, who);
  }

  @DeleteMapping("/{host}")
  @PreAuthorize("hasRole('ADMINISTRATOR')")
  void withdraw(@PathVariable String host, @AuthenticationPrincipal SignedIn who) {
    hosts.withdraw(host, who);
  }
}
