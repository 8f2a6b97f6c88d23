<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Engine\Performance;
use VividLedger\Engine\View;
use VividLedger\Message\Address;
use VividLedger\Message\Channel;
use VividLedger\Message\Message;
use VividLedger\People\Person;
use VividLedger\Record\Display;
use VividLedger\Record\Record;
use VividLedger\Rule\Reading\Context;
use VividLedger\Rule\Reading\Edit;
use VividLedger\Rule\Reading\Node;
use VividLedger\Rule\Reading\Offer;
use VividLedger\Rule\Reading\WordRole;
use VividLedger\Schema\Field;
use VividLedger\Schema\Path;
use VividLedger\Schema\RecordType;
use VividLedger\Template\RichText;
use VividLedger\Time\Amount;
use VividLedger\Time\Unit;
use VividLedger\Time\WorkingCalendar;

/**
 * Sends a person one list of records: a table of chosen columns, parted into what is late, due today, and due in the next
 * days by a date, or undivided without one.
 */
final readonly class SendList implements Line
{
    public const SUBJECT_LENGTH = 200;

    private const MOST_COLUMNS = 8;

    private const MOST_DAYS = 60;

    /** @param  list<Path>  $columns */
    private function __construct(
        private RecordType $type,
        private Channel $channel,
        private string $subject,
        private string $intro,
        private array $columns,
        private ?Field $by,
        private int $days,
        private bool $workingDays,
    ) {
    }

    public static function kind(): string
    {
        return 'send_list';
    }

    public static function label(): string
    {
        return 'Send a list';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $problems = $context->problems();
        $type = $context->type;
        $context->glue('Send them');
        $channel = Channel::tryFrom($node->child('channel')->text() ?? 'email');
        $channels = static fn (): array => [new Offer('an e-mail', null), new Offer('a note in the application', Channel::App->value)];
        if ($channel === null || $channel === Channel::Sms) {
            return $context->gap('choose how', $node->child('channel')->at, Edit::Offer, 'wrong_type', 'A list goes by e-mail, or as a note inside the application.', $channels);
        }
        $context->choice($channel === Channel::Email ? 'an e-mail' : 'a note', WordRole::Value, $node->child('channel')->at, $channels);
        $subject = trim($node->child('subject')->text() ?? '');
        if ($subject === '' || mb_strlen($subject) > self::SUBJECT_LENGTH) {
            $context->gap('write a subject', $node->child('subject')->at, Edit::Text, $subject === '' ? 'missing' : 'too_long', 'Give the list a subject of at most '.self::SUBJECT_LENGTH.' characters.');
        } else {
            $context->word("“{$subject}”", WordRole::Value, $node->child('subject')->at, Edit::Text);
        }
        $context->glue('with');
        $columns = [];
        foreach ($node->child('columns')->items() as $item) {
            $path = $context->schema->path($type, $item->text() ?? '');
            if ($path === null) {
                return $context->gap($item->text() ?? '?', $node->child('columns')->at, Edit::WatchedFields, 'unknown_field', "{$type->label} has no field ‘{$item->text()}’. Choose the columns again.");
            }
            $columns[] = $path;
        }
        if ($columns === [] || count($columns) > self::MOST_COLUMNS) {
            $context->gap('choose columns', $node->child('columns')->at, Edit::WatchedFields, 'missing', 'Choose from 1 to '.self::MOST_COLUMNS.' columns.');
        } else {
            $context->word(implode(', ', array_map(static fn (Path $path): string => $path->label(), $columns)), WordRole::Field, $node->child('columns')->at, Edit::WatchedFields);
        }
        [$by, $days, $working] = self::window($context, $node, $type);

        return $context->problems() > $problems ? null : new self($type, $channel, $subject, trim($node->child('body')->text() ?? ''), $columns, $by, $days, $working);
    }

    /** A list is made of many records, so it is never done for one. */
    public function perform(Performance $performance): void
    {
        $performance->failed('The list', 'it is made of records that a timetable puts together');
    }

    /**
     * @param  list<Record>  $records
     * @return ?Message null when none of them belongs on the list now
     */
    public function message(array $records, Person $person, \VividLedger\Engine\Facts $facts, Display $display, \DateTimeZone $zone, WorkingCalendar $calendar): ?Message
    {
        $groups = $this->groups($records, $facts->now(), $zone, $calendar);
        if ($groups === []) {
            return null;
        }
        $html = $this->intro === '' ? '' : '<p>'.htmlspecialchars($this->intro).'</p>';
        $text = $this->intro === '' ? '' : "{$this->intro}\n\n";
        foreach ($groups as $label => $those) {
            $head = array_map(static fn (Path $path): string => $path->label(), $this->columns);
            $html .= "<h3>{$label} (".count($those).')</h3><table><thead><tr><th>Number</th><th>'.implode('</th><th>', array_map(htmlspecialchars(...), $head)).'</th></tr></thead><tbody>';
            $text .= "{$label} (".count($those).")\n";
            foreach ($those as $record) {
                $view = new View($record, $facts);
                $cells = array_map(static fn (Path $path): string => $display->merged($path->field, $view->value($path)), $this->columns);
                $number = $this->type->numberOf($record->id);
                $html .= "<tr><td>{$number}</td><td>".implode('</td><td>', array_map(htmlspecialchars(...), $cells)).'</td></tr>';
                $text .= "  {$number}  ".implode('  ', $cells)."\n";
            }
            $html .= '</tbody></table>';
            $text .= "\n";
        }
        $to = $this->channel === Channel::App ? new Address($person->name, '', $person->id) : new Address($person->name, $person->email, $person->id);

        return new Message($this->channel, [$to], [], null, $this->subject, RichText::clean($html), trim($text), $person->name, []);
    }

    /**
     * @param  list<Record>  $records
     * @return array<string, non-empty-list<Record>> by heading; those whose date lies further ahead are left out
     */
    public function groups(array $records, \DateTimeImmutable $now, \DateTimeZone $zone, WorkingCalendar $calendar): array
    {
        if ($this->by === null) {
            return $records === [] ? [] : ["{$this->type->plural}" => $records];
        }
        $today = $now->setTimezone($zone)->format('Y-m-d');
        $last = (new Amount($this->days, $this->workingDays ? Unit::WorkingDay : Unit::Day))->from($now, $zone, $calendar)->setTimezone($zone)->format('Y-m-d');
        $next = $this->days === 0 ? '' : ($this->workingDays ? "Next {$this->days} working days" : "Next {$this->days} days");
        $groups = ['Late' => [], 'Today' => [], $next => []];
        $by = $this->by->name;
        usort($records, static fn (Record $one, Record $other): int => [$one->value($by), $one->id] <=> [$other->value($by), $other->id]);
        foreach ($records as $record) {
            $value = $record->value($by);
            if (! is_string($value)) {
                continue;
            }
            $day = strlen($value) === 10 ? $value : (new \DateTimeImmutable($value))->setTimezone($zone)->format('Y-m-d');
            $group = match (true) {
                $day < $today => 'Late',
                $day === $today => 'Today',
                $day <= $last => $next,
                default => null,
            };
            if ($group !== null) {
                $groups[$group][] = $record;
            }
        }

        return array_filter($groups, static fn (array $those): bool => $those !== []);
    }

    /** @return array{?Field, int, bool} */
    private static function window(Context $context, Node $node, RecordType $type): array
    {
        $by = $node->child('by');
        $dates = static fn (): array => [new Offer('in one list', null), ...array_map(static fn (Field $field): Offer => new Offer($field->label, $field->name, 'By when it is due'), array_values(array_filter($type->fields, static fn (Field $field): bool => $field->type->isMoment())))];
        if ($by->isMissing()) {
            $context->choice('in one list', WordRole::Value, $by->at, $dates);

            return [null, 0, false];
        }
        $field = $type->field($by->text() ?? '');
        if ($field === null || ! $field->type->isMoment()) {
            $context->gap($by->text() ?? 'choose a date', $by->at, Edit::Offer, 'unknown_field', 'Choose the date that parts what is late from what is to come.', $dates);

            return [null, 0, false];
        }
        $context->glue('by');
        $context->choice($field->label, WordRole::Field, $by->at, $dates);
        $days = $node->child('days');
        $working = $node->child('workingDays')->raw === true;
        if (! is_int($days->raw) || $days->raw < 0 || $days->raw > self::MOST_DAYS) {
            $context->gap('how many days ahead', $days->at, Edit::Number, 'out_of_range', 'Look from 0 to '.self::MOST_DAYS.' days ahead.');

            return [$field, 0, $working];
        }
        $context->glue(': late, today, and the next');
        $context->word((string) $days->raw, WordRole::Value, $days->at, Edit::Number);
        $context->choice($working ? 'working days' : 'days', WordRole::Value, $node->child('workingDays')->at, static fn (): array => [new Offer('working days', true), new Offer('days', null)]);

        return [$field, $days->raw, $working];
    }
}
