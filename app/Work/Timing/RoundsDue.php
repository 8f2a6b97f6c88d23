<?php

declare(strict_types=1);

namespace App\Work\Timing;

use App\Models\Columns;
use App\Models\Ledger\Entry;
use App\Models\Rules\GuardKey;
use App\Models\Timing\LineSort;
use App\Models\Timing\ScheduledLine;
use App\Store\HouseClock;
use App\Store\Outbound\DigestBuilder;
use App\Store\Outbound\Outbox;
use App\Store\Records\PaperFacts;
use App\Store\Setup\Company;
use App\Store\Sql\Batch;
use App\Store\Sql\Matching;
use App\Store\Types\SchemaStore;
use Closure;
use VividLedger\House\Person;
use VividLedger\People\Who;
use VividLedger\Record\CauseKind;
use VividLedger\Record\Display;
use VividLedger\Record\Record;
use VividLedger\Rule\Line\Gathered;
use VividLedger\Rule\Line\SentTogether;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\Gathers;
use VividLedger\Rule\Trigger\KeepsTimetable;
use VividLedger\Time\WorkingCalendar;

/** A timetable comes round: every matching record gets its start, or every person the list of theirs. */
final readonly class RoundsDue implements Finds
{
    private const SAID = 200;

    public function __construct(
        private SchemaStore $schemas,
        private Company $company,
        private Outbox $outbox,
        private HouseClock $clock,
        private Clocks $clocks,
    ) {
    }

    /** @return array{} it finds no records: what it starts, it starts itself */
    public function between(Rule $rule, \DateTimeImmutable $after, \DateTimeImmutable $until, int $cursor, int $chunk): array
    {
        return [];
    }

    /** @return ?array{} a list is made when its time comes, and nothing can be made of it for one record */
    public function existing(Rule $rule, \DateTimeImmutable $now, Closure $matching): ?array
    {
        return $rule->trigger instanceof Gathers && $rule->trigger->per() !== null ? [] : null;
    }

    public function next(Rule $rule, \DateTimeImmutable $after): ?\DateTimeImmutable
    {
        $trigger = $rule->trigger;
        $moments = $trigger instanceof KeepsTimetable ? array_map(
            static fn (array $clock): ?\DateTimeImmutable => $trigger->timetable()->next($after, $clock[1], $clock[0]),
            $this->clocksOf($trigger),
        ) : [];
        $moments = array_filter($moments);

        return $moments === [] ? null : min($moments);
    }

    /** After an interruption the latest round stands for those before it: nobody wants last week's lists. */
    public function come(Rule $rule, KeepsTimetable $trigger, \DateTimeImmutable $after, \DateTimeImmutable $until): void
    {
        foreach ($this->clocksOf($trigger) as $clock) {
            $moment = $trigger->timetable()->last($after, $until, $clock[1], $clock[0]);
            if ($moment !== null) {
                $trigger->per() === null ? $this->each($rule, $trigger->occasion($moment), $moment) : $this->together(
                    $rule,
                    $trigger,
                    $trigger->per(),
                    $trigger->occasion($moment),
                    $clock,
                );
            }
        }
    }

    private function each(Rule $rule, string $occasion, \DateTimeImmutable $moment): void
    {
        $matching = Matching::query($rule->on, $rule->condition, $this->clock->now(), $this->company->zone());
        ScheduledLine::pencilFrom($matching->selectRaw('? AS due_at', [Columns::moment($moment)]), [
            'sort' => LineSort::Round, 'kind' => 'round', 'record_type' => $rule->on, 'entry_id' => 0, 'rule_id' => $rule->id,
            'page' => $rule->page, 'said' => mb_substr($rule->name, 0, self::SAID), 'occasion' => $occasion,
        ]);
    }

    /** @param  array{WorkingCalendar, \DateTimeZone}  $clock */
    private function together(Rule $rule, KeepsTimetable $trigger, Who $per, string $occasion, array $clock): void
    {
        $facts = new PaperFacts($this->schemas, $this->clock->now(), $this->company->zone());
        $gathering = new DigestBuilder($this->schemas);
        $lists = [];
        foreach ($rule->lines as $placed) {
            $list = $placed->line;
            if (! $list instanceof SentTogether) {
                continue;
            }
            foreach ($gathering->byPerson($list, $rule->on, $rule->condition, $per, $facts, $this->company->zone()) as $id => [$person,
                $gathered]) {
                if (! $trigger->isByOwnClock() || $facts->calendar($person) === $clock[0]) {
                    $lists[$id] ??= [$person, []];
                    $lists[$id][1][] = [$list, $gathered];
                }
            }
        }
        foreach ($lists as [$person, $theirs]) {
            $this->send($rule, $person, $theirs, $facts, $occasion, $trigger->isByOwnClock() ? $clock[1] : $this->company->zone());
        }
    }

    /** @param  list<array{SentTogether, Gathered}>  $lists */
    private function send(Rule $rule, Person $person, array $lists, PaperFacts $facts, string $occasion, \DateTimeZone $zone): void
    {
        $now = $this->clock->now();
        $messages = [];
        [$rows, $left] = [0, 0];
        foreach ($lists as [$list, $gathered]) {
            $made = $list->message($gathered, $person, $facts, new Display($facts, $zone), $zone, $facts->calendar($person));
            if ($made !== null) {
                $messages[] = $made[0];
                $rows += $made[1];
                $left += $made[2];
            }
        }
        $key = ['rule_id' => $rule->id, 'record_type' => 'person', 'record_id' => $person->id, 'epoch' => 0, 'guard_key' => $occasion];
        if ($messages === [] || GuardKey::rows()->where($key)->exists()) {
            return;
        }
        $data = [
            'person' => $person->id, 'records' => $rows, 'subject' => $messages[0]->subject,
        ] + ($left === 0 ? [] : ['left' => $left]);
        [$entry] = Batch::insertForIds(Entry::class, [
            Entry::row('gathered', $now, $data, ['via' => CauseKind::Rule, 'rule_id' => $rule->id, 'page' => $rule->page]),
        ]);
        Batch::insert(GuardKey::class, [$key + ['entry_id' => $entry, 'at' => Columns::moment($now)]]);
        // It is about many records, and so stands on none.
        $nothing = new Record($rule->on, 0, 0, []);
        $this->outbox->put(array_map(static fn ($message): array => [$message, $nothing, $rule->id, $entry, $now], $messages));
    }

    /** @return list<array{WorkingCalendar, \DateTimeZone}> */
    private function clocksOf(KeepsTimetable $trigger): array
    {
        return $trigger->isByOwnClock() ? $this->clocks->everybodys()[0] : [$this->clocks->company()];
    }
}
