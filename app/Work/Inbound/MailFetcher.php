<?php

declare(strict_types=1);

namespace App\Work\Inbound;

use Illuminate\Contracts\Cache\Repository;
use IMAP\Connection as Box;

/**
 * Fetches mail over IMAP (RFC 9051) and brings it to the door. What is taken is marked as seen, and only afterwards: a mail fetched
 * twice, because the mark could not be set, is known at the door by its id.
 */
final readonly class MailFetcher
{
    private const AT_ONCE = 50;

    /** A server that hangs keeps no more waiting than its own lane, and that not for ever. */
    private const PATIENCE_SECONDS = 20;

    /** One process at a time; one that died is not waited for longer than this. */
    private const LEASE_SECONDS = 300;

    /** So often a mail is tried that brings us into trouble; then it is flagged, and stays for somebody to look at. */
    private const MOST_TRIES = 8;

    private const REMEMBERED_SECONDS = 172_800;

    public function __construct(private InboundMail $door, private Repository $cache)
    {
    }

    /**
     * @return int how many mails came in; 0 where no mailbox is configured
     *
     * @throws \RuntimeException when the server cannot be reached or does not let us in
     */
    public function work(): int
    {
        $mailbox = Mailbox::configured();
        if ($mailbox === null) {
            return 0;
        }
        if (! $this->cache->add('mail-fetching', true, self::LEASE_SECONDS)) {
            return 0;
        }
        try {
            return $this->fetch($mailbox);
        } finally {
            $this->cache->forget('mail-fetching');
        }
    }

    private function fetch(Mailbox $mailbox): int
    {
        $box = $this->open($mailbox);
        $taken = 0;
        try {
            // A mail that is too large or none at all is flagged, and stays for somebody to look at.
            $found = array_map(intval(...), @imap_search($box, 'UNSEEN UNFLAGGED UNDELETED', SE_UID) ?: []);
            // Those that brought us into trouble come behind all others.
            usort($found, fn (int $one, int $other): int => [$this->tries($one), $one] <=> [$this->tries($other), $other]);
            foreach (array_slice($found, 0, self::AT_ONCE) as $uid) {
                $taken += $this->takeOne($box, $uid) ? 1 : 0;
            }
        } finally {
            imap_close($box);
            // What the server said by the way would be printed at the end otherwise.
            imap_errors();
            imap_alerts();
        }

        return $taken;
    }

    private function takeOne(Box $box, int $uid): bool
    {
        $overview = imap_fetch_overview($box, (string) $uid, FT_UID) ?: [];
        $isTooLarge = ($overview[0]->size ?? 0) > MailReader::MOST_BYTES;
        try {
            $isTooLarge || $this->door->take(imap_fetchheader($box, $uid, FT_UID).imap_body($box, $uid, FT_UID | FT_PEEK));
        } catch (\DomainException) {
            $isTooLarge = true;
        } catch (\Throwable $trouble) {
            // One that brings us into trouble keeps no other one waiting, and is fetched again, some times.
            report($trouble);
            $tries = $this->tries($uid) + 1;
            $this->cache->put("mail-tries:{$uid}", $tries, self::REMEMBERED_SECONDS);
            if ($tries >= self::MOST_TRIES) {
                imap_setflag_full($box, (string) $uid, '\\Flagged', ST_UID);
            }

            return false;
        }
        imap_setflag_full($box, (string) $uid, $isTooLarge ? '\\Seen \\Flagged' : '\\Seen', ST_UID);

        return ! $isTooLarge;
    }

    private function tries(int $uid): int
    {
        return (int) $this->cache->get("mail-tries:{$uid}", 0);
    }

    private function open(Mailbox $mailbox): Box
    {
        function_exists('imap_open') || throw new \RuntimeException('Fetching mail needs PHP’s imap extension.');
        foreach ([IMAP_OPENTIMEOUT, IMAP_READTIMEOUT, IMAP_WRITETIMEOUT, IMAP_CLOSETIMEOUT] as $of) {
            imap_timeout($of, self::PATIENCE_SECONDS);
        }
        $box = @imap_open($mailbox->name, $mailbox->user, $mailbox->password, 0, 1);
        $why = implode(' ', imap_errors() ?: []);

        return $box ?: throw new \RuntimeException("The mailbox cannot be opened: {$why}");
    }
}
