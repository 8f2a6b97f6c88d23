<?php

declare(strict_types=1);

namespace App\Work\Outbound;

use App\Models\Columns;
use App\Models\Events\MessagesWait;
use App\Models\Outbound\MessageStatus;
use App\Models\Outbound\NoticeWay;
use App\Models\Outbound\StoredMessage;
use App\Models\People\Person;
use App\Store\Access\AccessScope;
use App\Store\Access\SeenTexts;
use App\Store\HouseClock;
use App\Store\Languages;
use App\Store\LedgerConnection;
use App\Store\Outbound\Notice;
use App\Store\Outbound\Notices;
use App\Store\People\PeopleStore;
use App\Store\Types\SchemaStore;
use VividLedger\Message\Channel;
use VividLedger\Time\WorkingCalendar;
use VividLedger\Words\Words;

/**
 * Letters about what happened for somebody, to those who want them: at once, or together on the morning of a working day. What was told
 * is marked in the transaction that writes the letter, and each letter goes by a name of its own, so that nothing is told twice.
 */
final readonly class NoticeLetters
{
    private const MOST = 200;

    private const MORNING = '08:00';

    /** So many days without a working day among them have no morning that anybody waits for. */
    private const MORNINGS_AHEAD = 40;

    /** So long nothing is marked where nothing was told. */
    private const MARKED_EVERY = '+10 minutes';

    /** A change that took this long to commit is still found. */
    private const OVERLAP = '-5 minutes';

    public function __construct(private LedgerConnection $db, private HouseClock $clock, private SchemaStore $schemas,
        private Languages $languages, private AccessScope $inSight)
    {
    }

    /**
     * @return int how many letters were written
     *
     * @throws \Throwable when somebody could not be written to; all the others have been
     */
    public function work(): int
    {
        [$written, $trouble] = [0, null];
        // Of everybody at once: this comes round every few seconds.
        $people = new PeopleStore($this->schemas);
        foreach (Columns::ints(Person::query()->where('active', true)->whereNotNull('notice_ways')->orderBy('id')->pluck('id')) as $id) {
            try {
                $written += $this->db->transaction(function () use ($id, $people): int {
                    $person = Person::query()->lockForUpdate()->findOrFail($id);

                    return $this->languages->in($person->language ?? Words::OWN, fn (): int => $this->tell($person, $people));
                });
            } catch (\Throwable $thrown) {
                $trouble ??= $thrown;
                if ($this->db->isGone($thrown)) {
                    break;
                }
            }
        }
        if ($written > 0) {
            event(new MessagesWait);
        }

        return $trouble === null ? $written : throw $trouble;
    }

    /** When the next letter of the morning may be written; null where nobody wants one. */
    public function nextMorning(\DateTimeImmutable $after): ?\DateTimeImmutable
    {
        $next = null;
        foreach (Person::query()->where('active', true)->whereNotNull('notice_ways')->get() as $person) {
            if ($person->noticesBy(NoticeWay::Morning) !== []) {
                $calendar = (new PeopleStore($this->schemas))->calendar((new PeopleStore($this->schemas))->person($person->id));
                $morning = self::morningAfter($calendar, $after);
                $next = $morning !== null && ($next === null || $morning < $next) ? $morning : $next;
            }
        }

        return $next;
    }

    private static function morningAfter(WorkingCalendar $calendar, \DateTimeImmutable $after): ?\DateTimeImmutable
    {
        $local = $after->setTimezone($calendar->zone);
        for ($ahead = 0; $ahead < self::MORNINGS_AHEAD; $ahead++) {
            $morning = self::morning($local->modify("+{$ahead} days"));
            if ($morning > $after && $calendar->isWorkingDay($morning, $calendar->zone)) {
                return $morning;
            }
        }

        return null;
    }

    private static function morning(\DateTimeImmutable $local): \DateTimeImmutable
    {
        [$hour, $minute] = array_map(intval(...), explode(':', self::MORNING));

        return $local->setTime($hour, $minute);
    }

    private function tell(Person $person, PeopleStore $people): int
    {
        $now = $this->clock->now();
        $texts = new SeenTexts($this->inSight->of($person));
        $written = 0;
        $soon = $person->noticesBy(NoticeWay::Letter);
        if ($soon !== []) {
            $since = ($person->notices_sent_until ?? $now)->modify(self::OVERLAP);
            foreach (array_reverse(Notices::of($person->id, $texts, self::MOST, $since)) as $notice) {
                $written += in_array($notice->kind, $soon, true) && $notice->at > ($person->notices_since ?? $since)
                    ? $this->write($person, $notice->key(), $notice->title, [$notice], $now) : 0;
            }
        }
        $morning = $person->noticesBy(NoticeWay::Morning);
        $from = $person->morning_sent_at ?? $person->notices_since ?? $now;
        $isSent = false;
        if ($morning !== [] && self::isMorning($people->calendar($people->person($person->id)), $from, $now)) {
            $notices = array_values(array_filter(
                Notices::of($person->id, $texts, self::MOST, $from),
                static fn (Notice $notice): bool => in_array($notice->kind, $morning, true) && $notice->at > $from && $notice->at <= $now,
            ));
            $count = count($notices);
            $title = Words::counted(
                $count,
                'Your morning: {count} thing since you last heard|Your morning: {count} things since you last heard',
            );
            $written += $count === 0 ? 0 : $this->write($person, "morning:{$now->getTimestamp()}", $title, $notices, $now);
            $isSent = true;
        }
        if ($written > 0 || $isSent || $now > ($person->notices_sent_until ?? $now)->modify(self::MARKED_EVERY)) {
            $person->update(['notices_sent_until' => $now] + ($isSent ? ['morning_sent_at' => $now] : []));
        }

        return $written;
    }

    /** Whether the morning of a working day has come, by the person's own calendar, since they last heard. */
    private static function isMorning(WorkingCalendar $calendar, \DateTimeImmutable $last, \DateTimeImmutable $now): bool
    {
        $local = $now->setTimezone($calendar->zone);
        $morning = self::morning($local);

        return $local >= $morning && $last < $morning && $calendar->isWorkingDay($local, $calendar->zone);
    }

    /**
     * @param  list<Notice>  $notices
     * @return int 1 if it was written, 0 if it had been
     */
    private function write(Person $person, string $key, string $subject, array $notices, \DateTimeImmutable $now): int
    {
        $text = static fn (string $plain): string => htmlspecialchars($plain, ENT_QUOTES | ENT_SUBSTITUTE);
        $why = Words::say('You chose to be written to about this, in your profile.');
        $lines = array_map(fn (Notice $notice): array => [$notice->title, ...$this->about($notice)], $notices);

        return StoredMessage::rows()->insertOrIgnore([
            'key' => substr(hash_hmac('sha256', "notice:{$person->id}:{$key}", (string) config('app.key')), 0, 40),
            'channel' => Channel::Email->value,
            // It tells of what one person sees, and stands on no record where others would read it.
            'record_type' => $notices[0]->recordType, 'record_id' => 0, 'entry_id' => 0, 'rule_id' => null, 'person_id' => $person->id,
            'recipients' => Columns::json([
                'to' => [['name' => $person->name, 'address' => $person->email, 'language' => $person->language ?? Words::OWN]],
                'cc' => [], 'replyTo' => null,
            ]),
            'subject' => mb_substr($subject, 0, 200),
            'html' => '<ul>'.implode('', array_map(
                static fn (array $line): string => "<li>{$text($line[0])} <a href=\"{$text($line[2])}\">{$text($line[1])}</a></li>", $lines,
            ))."</ul><p>{$text($why)}</p>",
            'text' => implode("\n", array_map(static fn (array $line): string => "- {$line[0]} ({$line[1]}): {$line[2]}", $lines))
                ."\n\n{$why}",
            'status' => MessageStatus::Waiting->value, 'created_at' => Columns::moment($now), 'next_try_at' => Columns::moment($now),
            'trouble' => '',
        ]);
    }

    /** @return array{string, string} the number of the record it is about, and its address */
    private function about(Notice $notice): array
    {
        $url = rtrim((string) config('app.url'), '/');

        // A list is about many records, and stands on none.
        return $notice->recordId === 0 ? ['', $url] : [
            $this->schemas->schema()->type($notice->recordType)?->numberOf($notice->recordId) ?? '',
            "{$url}/records/{$notice->recordType}/{$notice->recordId}",
        ];
    }
}
