<?php

declare(strict_types=1);

namespace VividLedger\Rule;

use VividLedger\Facts\Facts;
use VividLedger\Message\Address;
use VividLedger\Rule\Timing\Occasion;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\FormField;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Part;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Always;
use VividLedger\Shape\Slot\Counted;
use VividLedger\Shape\Slot\Labels;
use VividLedger\Shape\Slot\Length;
use VividLedger\Shape\Slot\TimeOfDay;
use VividLedger\Shape\TimeReader;
use VividLedger\Shape\Way;
use VividLedger\Shape\WordRole;
use VividLedger\Time\Due;
use VividLedger\Time\LocalTime;
use VividLedger\Words\Words;

/**
 * What no line of the rule may break: the hours outside which lines wait, and how many messages anybody gets in a time,
 * counted over all rules.
 */
final readonly class Limits
{
    private const DAYS_AHEAD = 400;

    /**
     * @param  ?array{string, string}  $hours  from and to, "08:00"
     * @param  ?int  $most  messages to one address in the period
     * @param  bool  $drops  whether a message over the limit is dropped; otherwise it waits
     */
    private function __construct(
        public ?array $hours,
        private bool $workingDays,
        private bool $ownersClock,
        private ?int $most,
        private ?Due $period,
        public bool $drops,
    ) {
    }

    /** How they are written, printed and said. */
    public static function shape(): Shape
    {
        $more = '[ on working days{workingDays}][, by the owner’s clock{clock}]';
        $outside = Shape::of()->says("outside {from}–{to}{$more}")->orSaid(
            "outside [of ]{from} (-|to|until|and) {to}{$more}", "before {from} (or|and) after {to}{$more}",
        )->slot('from', new TimeOfDay)->slot('to', new TimeOfDay(isEnd: true))->slot('workingDays', new Always)
            ->slot('clock', new Always('owner'));
        $cap = Shape::of()->says('more than {messages} messages in {length} to one address[; {then}]')->orSaid(
            'more than {messages} (message|messages|letters|e-mails) (in|per|within|a|every) {length}[ to (one address|one person|'
                .'anybody|the same address|anyone)]'
                .'[; {then}]',
        )->orSaidWith(
            ['messages' => 1], 'less than {length} (between|apart|between two|between any two)[ messages| letters| e-mails]'
                .'[ to (one address|one person|anybody|the same address|anyone)]',
        )->slot('messages', new Counted(1, 1000))->slot('length', new Length)
            ->slot('then', Labels::of(['what is over is dropped' => 'drop', 'what is over waits' => 'wait']));

        return Shape::of()->says('{outside} or {moreThan}')->says('{outside}')->says('{moreThan}')
            ->slot('outside', $outside)->slot('moreThan', $cap);
    }

    /** @return ?self null without limits, and when they cannot be read */
    public static function read(Context $context, Node $node, bool $offered): ?self
    {
        if ($node->isMissing() && ! $offered) {
            return null;
        }
        $context->row(Part::Never, $node, 'Never');
        $problems = $context->problems();
        $hours = self::hours($context, $node->child('outside'));
        $cap = self::cap($context, $node->child('moreThan'));

        return $context->problems() > $problems || ($hours === null && $cap === null) ? null
            : new self(
                hours: $hours[0] ?? null, workingDays: $hours[1] ?? false, ownersClock: $hours[2] ?? false, most: $cap[0] ?? null,
                period: $cap[1] ?? null, drops: $cap[2] ?? false,
            );
    }

    /** The moment itself, or the next one at which lines may be done. */
    public function allowed(\DateTimeImmutable $at, Occasion $occasion): \DateTimeImmutable
    {
        if ($this->hours === null) {
            return $at;
        }
        $calendar = $occasion->calendars->calendar($this->ownersClock ? $occasion->owner : null);
        $zone = $this->ownersClock ? $calendar->zone : $occasion->zone;
        [$year, $month, $day] = array_map(intval(...), explode('-', $at->setTimezone($zone)->format('Y-n-j')));
        for ($ahead = 0; $ahead < self::DAYS_AHEAD; $ahead++) {
            $from = LocalTime::instant($year, $month, $day + $ahead, "{$this->hours[0]}:00", $zone);
            if ($at < LocalTime::instant($year, $month, $day + $ahead, "{$this->hours[1]}:00", $zone)
                && (! $this->workingDays || $calendar->isWorkingDay($from, $zone))) {
                return max($at, $from);
            }
        }

        return $at;
    }

    /**
     * When one more message may go to an address.
     *
     * @return ?\DateTimeImmutable null when it may go now
     */
    public function messageWaits(Address $address, Facts $facts, Occasion $occasion, \DateTimeImmutable $now): ?\DateTimeImmutable
    {
        if ($this->most === null || $this->period === null) {
            return null;
        }
        $sent = $facts->messagesTo($address, $occasion->reckon($this->period->times(-1), $now));
        // Those sent just at the edge count no more.
        $sent = array_values(array_filter($sent, fn (\DateTimeImmutable $at): bool => $occasion->reckon($this->period, $at) > $now));

        return count($sent) < $this->most ? null : $occasion->reckon($this->period, $sent[count($sent) - $this->most]);
    }

    /** Whether they keep messages to one address apart. */
    public function caps(): bool
    {
        return $this->most !== null;
    }

    public function capSaid(): string
    {
        return $this->period === null ? ''
            : "more than {$this->most} ".($this->most === 1 ? 'message' : 'messages')." in {$this->period->length()} to one address";
    }

    public function hoursSaid(): string
    {
        return $this->hours === null ? '' : "outside {$this->hours[0]}–{$this->hours[1]}".($this->workingDays ? ' on working days'
            : '').($this->ownersClock ? ', by the owner’s clock' : '');
    }

    private static function hoursForm(): Editor
    {
        return Editor::form('Quiet hours', static fn (): array => [new Way('', [], [
            FormField::clock('from', 'from', '08:00'),
            FormField::clock('to', 'to', '18:00'),
            FormField::tick('workingDays', 'on working days only'),
            FormField::choice('clock', '', [new Offer('by the company’s clock', null), new Offer('by the owner’s clock', 'owner')]),
        ])], 'No limit', Words::say('Lines are done only between these times. Others wait for the next that is allowed.'));
    }

    private static function capForm(): Editor
    {
        return Editor::form('Message cap', static fn (): array => [new Way('', [], [
            FormField::number(
                key: 'messages', label: 'at most', behind: 'messages', starts: 2, least: 1, most: 1000,
            ),
            FormField::time(['amount' => 1, 'unit' => 'week'], label: 'in', least: 1),
            FormField::choice('then', '', [new Offer('what is over waits', null), new Offer('what is over is dropped', 'drop')]),
        ])], 'No limit', Words::say('Counted for each address, over all rules together.'));
    }

    /** @return ?array{array{string, string}, bool, bool} */
    private static function hours(Context $context, Node $node): ?array
    {
        if ($node->isMissing()) {
            $context->more('+ quiet hours', $node->at, self::hoursForm());

            return null;
        }
        $time = static fn (Node $at): ?string => preg_match(
            '/^(([01]\d|2[0-3]):[0-5]\d|24:00)$/',
            $at->text() ?? '',
        ) === 1 ? $at->text() : null;
        [$from, $to] = [$time($node->child('from')), $time($node->child('to'))];
        if ($from === null || $to === null || $from >= $to) {
            return $context->gap(
                'choose the hours',
                $node->at,
                self::hoursForm(),
                'out_of_range',
                Words::say('Give the hours in which lines may be done, such as 08:00 to 18:00: the end comes after the start.'),
            );
        }
        $read = [[$from, $to], $node->child('workingDays')->raw === true, $node->child('clock')->text() === 'owner'];
        $hours = new self(
            hours: $read[0], workingDays: $read[1], ownersClock: $read[2], most: null, period: null, drops: false,
        );
        $context->word($hours->hoursSaid(), WordRole::Value, $node->at, self::hoursForm());

        return $read;
    }

    /** @return ?array{int, Due, bool} */
    private static function cap(Context $context, Node $node): ?array
    {
        if ($node->isMissing()) {
            $context->more('+ message cap', $node->at, self::capForm());

            return null;
        }
        $most = $node->child('messages')->raw;
        $period = TimeReader::due($node);
        $then = $node->child('then')->text() ?? 'wait';
        if (! is_int($most) || $most < 1 || $most > 1000 || is_string($period) || $period->amount->amount < 1
            || ! in_array($then, ['wait', 'drop'], true)) {
            return $context->gap(
                'choose how many',
                $node->at,
                self::capForm(),
                'out_of_range',
                Words::say('Say how many messages in what time, such as 2 in 1 week.'),
            );
        }
        $read = [$most, $period, $then === 'drop'];
        if ($context->hasWords()) {
            $context->glue('· or');
        }
        $cap = new self(
            hours: null, workingDays: false, ownersClock: false, most: $most, period: $period, drops: $then === 'drop',
        );
        $context->word($cap->capSaid(), WordRole::Value, $node->at, self::capForm());
        $context->glue($then === 'drop' ? '; what is over is dropped' : '; what is over waits');

        return $read;
    }
}
