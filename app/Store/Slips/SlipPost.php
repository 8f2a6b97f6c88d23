<?php

declare(strict_types=1);

namespace App\Store\Slips;

use App\Models\Slips\SlipTurnRow;
use App\Models\Slips\StoredSlip;
use App\Store\HouseClock;
use App\Store\Outbound\Outbox;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Support\Facades\Lang;
use VividLedger\Message\Address;
use VividLedger\Message\Channel;
use VividLedger\Message\Message;
use VividLedger\Record\Record;
use VividLedger\Rule\Performance\SlipSent;
use VividLedger\Slip\SlipEvent;
use VividLedger\Slip\SlipEventKind;
use VividLedger\Slip\TurnState;
use VividLedger\Template\RichText;

/** Writes the letters and text messages that bring a slip to whoever's turn it is, and remind them. */
final readonly class SlipPost
{
    /** What whoever's turn it is hears of. */
    private const HEARD = [SlipEventKind::Nudged, SlipEventKind::PassedOn, SlipEventKind::HandedOver, SlipEventKind::SentAgain];

    public function __construct(private Outbox $outbox, private HouseClock $clock)
    {
    }

    /** @param  list<array{int, SlipSent}>  $begun  id, and what was sent */
    public function begun(array $begun): void
    {
        if ($begun === []) {
            return;
        }
        $slips = StoredSlip::query()->with('turns')->whereIn('id', array_column($begun, 0))->get()->keyBy('id');
        $this->seal($slips->flatMap(static fn (StoredSlip $slip): Collection => $slip->turns));
        $messages = [];
        foreach ($begun as [$id, $sent]) {
            $slip = $slips->get($id);
            $turn = $slip?->turns->last();
            if ($slip !== null && $turn?->state === TurnState::Waiting) {
                foreach ($this->written($slip, $turn, $sent->channel, false) as $message) {
                    $messages[] = [$message, $sent->record, $slip->rule_id, $slip->entry_id, $this->clock->now(), $turn];
                }
            }
        }
        $this->outbox->putOfSlips($messages, 'begun');
    }

    /** @param  list<SlipEvent>  $events */
    public function happened(StoredSlip $slip, array $events, Record $record, int $entry): void
    {
        $slip->load('turns');
        $this->seal($slip->turns);
        $turn = $slip->turns->last();
        $messages = [];
        foreach ($events as $event) {
            $isHeard = in_array($event->kind, self::HEARD, true);
            if ($isHeard && $turn?->state === TurnState::Waiting) {
                $isNudge = $event->kind === SlipEventKind::Nudged;
                foreach ($this->written($slip, $turn, $event->channel ?? Channel::Email, $isNudge) as $message) {
                    $messages[] = [$message, $record, $slip->rule_id, $entry, $this->clock->now(), $turn];
                }
            }
        }
        $this->outbox->putOfSlips($messages, "slip:{$slip->id}");
    }

    /** @return list<Message> */
    private function written(StoredSlip $slip, SlipTurnRow $turn, Channel $channel, bool $isNudge): array
    {
        $to = $channel === Channel::Sms ? $turn->turn()->text : $turn->turn()->mail;
        $language = $to->language->value ?? 'en';
        $words = static fn (string $key): string => (string) Lang::get("slip.letter.{$key}", ['subject' => $slip->subject], $language);
        $subject = mb_substr($isNudge ? $words('nudge') : $slip->subject, 0, 200);
        $address = rtrim((string) config('app.url'), '/').SlipLink::MARK;
        $messages = [];
        if ($to !== null && $channel === Channel::Sms) {
            $messages[] = new Message(
                channel: $channel, to: [$to], cc: [], replyTo: null, subject: $subject, html: '', text: "{$subject}\n{$address}",
                path: $turn->name, missing: [], tells: $slip->tells,
            );
        } elseif ($to !== null) {
            $html = $slip->html.'<p><a href="'.SlipLink::MARK."\">{$words('answer')}</a></p><p>{$words('alone')}</p>";
            $text = str_replace(' ('.SlipLink::MARK.')', ": {$address}", RichText::plain($html));
            $messages[] = new Message(
                channel: $channel, to: [$to], cc: [], replyTo: null, subject: $subject, html: $html, text: $text, path: $turn->name,
                missing: [], tells: $slip->tells,
            );
        }
        if ($turn->person_id !== null) {
            $inside = new Address($turn->name, '', $turn->person_id);
            $messages[] = new Message(
                channel: Channel::App, to: [$inside], cc: [], replyTo: null, subject: "A slip waits for you: {$slip->subject}", html: '',
                text: '', path: $turn->name, missing: [], tells: $slip->tells,
            );
        }

        return $messages;
    }

    /**
     * Whoever's turn it is can be known by their link from now on.
     *
     * @param  \Illuminate\Support\Collection<int, SlipTurnRow>  $turns
     */
    private function seal(\Illuminate\Support\Collection $turns): void
    {
        foreach ($turns as $turn) {
            if ($turn->token_hash === null && $turn->state === TurnState::Waiting) {
                $turn->update(['token_hash' => SlipLink::hash(SlipLink::token($turn))]);
            }
        }
    }
}
