<?php

declare(strict_types=1);

namespace VividLedger\Rule\Reading;

use VividLedger\Condition\Condition;
use VividLedger\Condition\ConditionReader;
use VividLedger\House\Directory;
use VividLedger\Record\EventKind;
use VividLedger\Rule\Cases\CaseAssembly;
use VividLedger\Rule\Cases\CaseLayout;
use VividLedger\Rule\Guard\RepeatGuards;
use VividLedger\Rule\Limits;
use VividLedger\Rule\Line\Lines;
use VividLedger\Rule\Line\Placed;
use VividLedger\Rule\Line\SentTogether;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\Gathers;
use VividLedger\Rule\Trigger\Trigger;
use VividLedger\Rule\Trigger\Triggers;
use VividLedger\Schema\Schema;
use VividLedger\Shape\Asked;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\KeyTracker;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Part;
use VividLedger\Shape\Problem;
use VividLedger\Shape\ReadingResult;
use VividLedger\Shape\Row;
use VividLedger\Shape\Word;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** Reads a rule file: into the page a person sees, into its problems, and, when there are none, into a rule. */
final readonly class RuleReader
{
    public const FORMAT = 'vivid-ledger/rule/1';

    public const NAME_LENGTH = 80;

    public const PURPOSE_LENGTH = 300;

    public function __construct(
        private Schema $schema,
        private Directory $directory,
        private \DateTimeZone $zone,
    ) {
    }

    /**
     * @param  array<mixed>  $file  the decoded JSON
     * @param  ?Asked  $asked  the word whose choices are wanted; they are then in the page's offers and ways
     */
    public function read(array $file, int $id = 0, int $page = 0, string $eitherOr = '', ?Asked $asked = null): RulePage
    {
        return $this->from(new Node($file), $id, $page, $eitherOr, $asked);
    }

    /**
     * The same of a file that comes from outside: what stands there and is not known is a problem at its place.
     *
     * @param  array<mixed>  $file
     */
    public function strictly(array $file, int $id = 0, int $page = 0, string $eitherOr = ''): RulePage
    {
        $reads = new KeyTracker;
        $read = $this->from(new Node($file, '', $reads), $id, $page, $eitherOr, null);
        $unknown = $reads->unknown($file, $read->problems);

        return $unknown === [] ? $read : new RulePage($read->rows, [...$read->problems, ...$unknown], null, $read->offers, $read->ways);
    }

    private function from(Node $root, int $id, int $page, string $eitherOr, ?Asked $asked): RulePage
    {
        $type = $this->schema->type($root->child('on')->text() ?? '');
        if ($type === null) {
            $unknown = $root->child('on')->text();

            return new RulePage(
                [],
                [
                    new Problem(
                        '/on',
                        'unknown_type',
                        $unknown === null
                            ? Words::say('Say which records the rule is about.')
                            : Words::say('There is no record type ‘{unknown}’.', unknown: $unknown),
                    ),
                ],
                null,
            );
        }
        $sheet = new ReadingResult($asked);
        $context = new Context($this->schema, $this->directory, $type, $this->zone, $sheet);
        $format = $root->child('format');
        if (! $format->isMissing() && $format->raw !== self::FORMAT) {
            $context->problem(
                $format->at,
                'wrong_format',
                Words::say('This is no rule file of the format {format}.', format: self::FORMAT),
            );
        }
        $root->child('$schema');
        $name = trim($root->child('name')->text() ?? '');
        if ($name === '') {
            $context->problem('/name', 'missing', Words::say('Give the rule a name.'));
        } elseif (mb_strlen($name) > self::NAME_LENGTH) {
            $context->problem(
                '/name',
                'too_long',
                Words::say(
                    'A name has at most {most} characters; this has {name}.',
                    most: self::NAME_LENGTH,
                    name: mb_strlen($name),
                ),
            );
        }
        self::purpose($context, $root->child('purpose'));
        $when = $context->row(Part::When, $root->child('when'), 'When');
        $context->glue(explode(' ', $type->one())[0]);
        $context->word($type->label, WordRole::Field, '/on', null);
        $trigger = Triggers::read($context, $root->child('when'));
        $byHand = $this->byHand($context, $root->child('when')->child('byHand'), $trigger, $when);
        $condition = ConditionReader::read($context, self::withRootGroup($root->child('onlyIf')), 'Only if');
        $context->row(Part::Fires, $root->child('fires'), 'Fires');
        $guard = RepeatGuards::read($context, $root->child('fires'));
        $again = RepeatGuards::again($context, $root->child('fires'), $guard);
        $lines = $this->lines($context, $root->child('lines'));
        $lasts = array_filter($lines, static fn (Placed $placed): bool => $placed->timing !== null) !== [];
        $until = $this->until($context, $root->child('until'), $lasts);
        $limits = Limits::read(
            $context,
            $root->child('never'),
            $lasts || array_filter($lines, static fn (Placed $placed): bool => $placed->isMessage()) !== [],
        );
        foreach ($root->child('until')->isMissing() ? $lines : [] as $placed) {
            if ($placed->timing?->isEndless() === true) {
                $context->problem('/until', 'no_end', Words::say(
                    'Line {line} repeats without a most: say what ends the rule, or how often at most.', line: $placed->place + 1,
                ));
            }
        }
        $this->gathered($context, $trigger, $lines);
        $rule = $trigger !== null && $condition !== null && $guard !== null && $sheet->problems === []
            ? new Rule(
                id: $id, page: $page, name: $name, on: $type->name, trigger: $trigger, condition: $condition, guard: $guard,
                lines: $lines, again: $again, eitherOr: $eitherOr, until: $until, limits: $limits, byHand: $byHand, left: $sheet->left,
            )
            : null;

        return new RulePage($sheet->rows, $sheet->problems, $rule, $sheet->offers, $sheet->ways);
    }

    /** What the rule is for, in somebody's own words; it changes nothing of what it does. */
    private static function purpose(Context $context, Node $node): void
    {
        if (! $node->isMissing() && $node->text() === null) {
            $context->problem($node->at, 'wrong_type', Words::say('Say in words what the rule is for.'));
        } elseif (mb_strlen($node->text() ?? '') > self::PURPOSE_LENGTH) {
            $context->problem($node->at, 'too_long', Words::say(
                'What a rule is for is said in at most {most} characters.', most: self::PURPOSE_LENGTH,
            ));
        }
    }

    /** Any rule may be run by hand besides, but one that is anyhow, and one that puts records together. */
    private function byHand(Context $context, Node $node, ?Trigger $trigger, Row $row): bool
    {
        $wanted = $node->raw === true;
        if ($trigger === null || in_array(EventKind::ByHand, $trigger->watch()->events, true) || self::puts($trigger)) {
            if ($wanted && $trigger !== null) {
                $context->problem(
                    $node->at,
                    'wrong_type',
                    Words::say('This cannot be run by hand besides.'),
                );
            }

            return false;
        }
        $offers = static fn (): array => [new Offer('or is run by hand', true), new Offer('not by hand', null)];
        if ($wanted) {
            $row->words[] = new Word(',');
        }
        $context->wordIn(
            $row,
            $wanted ? 'or is run by hand' : '+ or by hand',
            $wanted ? WordRole::Value : WordRole::More,
            $node->at,
            Editor::choose('By hand', $offers),
        );

        return $wanted;
    }

    private function until(Context $context, Node $node, bool $offered): ?Condition
    {
        if (! $node->isMissing()) {
            return ConditionReader::read($context, $node, 'Until', 1);
        }
        if ($offered) {
            $context->row(Part::Until, $node, 'Until');
            $context->more('+ what ends it early', $node->at, Editor::conditions());
        }

        return null;
    }

    /** Whether it puts the records of a person together. */
    private static function puts(Trigger $trigger): bool
    {
        return $trigger instanceof Gathers && $trigger->per() !== null;
    }

    /**
     * Records put together for a person make a list, and nothing but a list can be made of them.
     *
     * @param  list<Placed>  $lines
     */
    private function gathered(Context $context, ?Trigger $trigger, array $lines): void
    {
        $together = $trigger !== null && self::puts($trigger);
        foreach ($lines as $placed) {
            if (($placed->line instanceof SentTogether) !== $together) {
                $context->problem("/lines/{$placed->place}", 'wrong_type', $together
                    ? Words::say('Records that are put together for a person are sent as a list. Choose “Send a list”, or look at them '
                        .'one by one.')
                    : Words::say('A list is made of records that a timetable puts together for a person.'));
            }
        }
    }

    /** @return list<Placed> those that are finished and not switched off, each in its case */
    private function lines(Context $context, Node $list): array
    {
        $items = $list->items();
        $headings = Lines::headings();
        $layout = CaseLayout::of($items, $headings);
        $lines = [];
        $count = 0;
        foreach ($items as $place => $item) {
            $context->sheet->indent = $layout->indents[$place];
            $line = Lines::read($context, $item, $place);
            if (isset($layout->problems[$place])) {
                $line = $context->problem($item->at, 'no_case', $layout->problems[$place]);
            }
            $count += isset($headings[$item->kind()]) ? 0 : 1;
            if ($item->child('off')->raw !== true) {
                $lines[$place] = $line;
            }
        }
        $context->sheet->indent = 0;
        $inForce = CaseAssembly::inForce($lines, $layout);
        if ($count === 0) {
            $context->problem('/lines', 'missing', Words::say('A rule needs at least one line: say what it does.'));
        } elseif (array_diff_key($inForce, array_filter($items, static fn (Node $item): bool => isset($headings[$item->kind()]))) === []) {
            $context->problem('/lines', 'all_off', Words::say('Every line is switched off: switch one on.'));
        } elseif (count($items) > Lines::MOST) {
            $context->problem('/lines', 'too_many', Words::say('A rule has at most {most} lines.', most: Lines::MOST));
        }
        $read = array_filter($inForce);

        return count($read) === count($inForce) ? (new CaseAssembly($layout, $read))->lines($context) : array_values($read);
    }

    /** A file without conditions reads like one whose group of conditions is empty. */
    private static function withRootGroup(Node $node): Node
    {
        return $node->isMissing() ? new Node(['kind' => 'all', 'of' => []], $node->at) : $node;
    }
}
