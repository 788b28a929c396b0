package org.zephyrmist.core.lti;

import java.util.Map;

/**
 * What a tool answers to a login (1EdTech Security Framework 1.0, section 5.1.1.2).
 *
 * @param redirect where the message is to be sent
 * @param state comes back with the message
 * @param nonce comes back in the message
 * @param hint of the login
 * @param message hint of the message
 */
public record AuthenticationRequest(
    String redirect, String state, String nonce, String hint, String message) {

  /**
   * @param sent its parameters
   * @throws OidcError for the first thing that is wrong
   */
  public static AuthenticationRequest of(Map<String, String> sent, Registration r) {
    if (!r.client().equals(sent.get("client_id"))) {
      throw new OidcError(
          "unauthorized_client", "client_id is " + sent.get("client_id") + ", not " + r.client());
    }
    if (!r.launches().contains(sent.get("redirect_uri"))) {
      throw new OidcError(
          "invalid_request",
          "redirect_uri " + sent.get("redirect_uri") + " is none of the registered addresses");
    }
    is(sent, "scope", "openid", "invalid_scope");
    is(sent, "response_type", "id_token", "unsupported_response_type");
    is(sent, "response_mode", "form_post", "invalid_request");
    is(sent, "prompt", "none", "invalid_request");
    return new AuthenticationRequest(
        sent.get("redirect_uri"),
        sent.getOrDefault("state", ""),
        some(sent, "nonce"),
        some(sent, "login_hint"),
        sent.getOrDefault("lti_message_hint", ""));
  }

  private static void is(Map<String, String> sent, String name, String value, String code) {
    if (!value.equals(sent.get(name))) {
      throw new OidcError(code, name + " has to be " + value);
    }
  }

  private static String some(Map<String, String> sent, String name) {
    String value = sent.getOrDefault(name, "");
    if (value.isEmpty()) {
      throw new OidcError("invalid_request", name + " is missing");
    }
    return value;
  }
}
