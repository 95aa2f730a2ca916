package org.polyclave.server.access.web;

import java.util.List;
import org.polyclave.server.access.AtLeast;
import org.polyclave.server.access.MemberService;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.access.Role;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Who shares a study. */
@RestController
@RequestMapping("/api/v1/studies/{slug}/members")
class MemberController {
    record ShareRequest(String account, Role role) {}

    record MemberResponse(String name, String displayName, Role role) {}

    private final MemberService members;

    MemberController(MemberService members) {
        this.members = members;
    }

    /** Who shares the study. */
    @GetMapping
    List<MemberResponse> members(@AtLeast(Role.VIEWER) OpenStudy open) {
        return members.members(open).stream()
                .map(m -> new MemberResponse(m.name(), m.displayName(), m.role()))
                .toList();
    }

    /** Shares the study with an account, or changes its role. */
    @PutMapping
    void share(@AtLeast(Role.OWNER) OpenStudy open, @RequestBody ShareRequest request) {
        members.share(open, request.account(), request.role());
    }

    /** Removes a member's access; what they did stays. */
    @DeleteMapping("/{account}")
    void unshare(@AtLeast(Role.OWNER) OpenStudy open, @PathVariable String account) {
        members.unshare(open, account);
    }
}
