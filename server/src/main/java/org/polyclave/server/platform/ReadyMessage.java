package org.polyclave.server.platform;

import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.availability.AvailabilityChangeEvent;
import org.springframework.boot.availability.ReadinessState;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/** Tells the launcher that the server answers; it comes after everything else is in place. */
@Component
class ReadyMessage {
    private static final Logger LOG = LoggerFactory.getLogger(ReadyMessage.class);

    @EventListener
    void ready(AvailabilityChangeEvent<ReadinessState> event) {
        if (event.getState() == ReadinessState.ACCEPTING_TRAFFIC) {
            LOG.info("Ready for readers");
        }
    }
}
