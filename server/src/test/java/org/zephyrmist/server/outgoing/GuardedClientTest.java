package org.zephyrmist.server.outgoing;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.InetAddress;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class GuardedClientTest {
  @ParameterizedTest
  @ValueSource(
      strings = {
        "127.0.0.1",
        "127.9.9.9",
        "10.1.2.3",
        "172.16.0.1",
        "172.31.255.255",
        "192.168.1.1",
        "169.254.169.254",
        "0.0.0.0",
        "100.64.0.1",
        "224.0.0.1",
        "255.255.255.255",
        "::1",
        "::",
        "fe80::1",
        "fc00::1",
        "fd12::1",
        "ff02::1",
        "::ffff:10.0.0.1",
        "64:ff9b::a00:1",
        "2002:a00:1::",
        "198.18.0.1",
        "192.0.0.1"
      })
  void whatIsInsideIsNotCalledUnlessASettingNamesIt(String address) throws Exception {
    assertThat(GuardedClient.isInside(InetAddress.getByName(address))).isTrue();
  }

  @ParameterizedTest
  @ValueSource(strings = {"93.184.216.34", "8.8.8.8", "172.32.0.1", "100.128.0.1", "2606:2800::1"})
  void whatIsOutsideMayBeCalled(String address) throws Exception {
    assertThat(GuardedClient.isInside(InetAddress.getByName(address))).isFalse();
  }
}
