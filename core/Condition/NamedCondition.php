<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use Closure;
use VividLedger\Facts\View;
use VividLedger\Record\Display;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Row;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\ItsType;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** A condition that the company keeps under a name and several rules use: "Nordic hotels". */
final readonly class NamedCondition implements Parted, Spoken
{
    public function __construct(
        private Condition $of,
        private string $text,
    ) {
    }

    public static function shapes(): array
    {
        return [Shape::of('named')->says('it is one of {name}')->orSaid('{} is one of {name}', 'it is (in|among) {name}')
            ->slot('', new ItsType)->slot('name', new Quoted)];
    }

    public static function offers(Context $context, Node $node): array
    {
        return $context->directory->namedConditions($context->type->name) === [] ? []
            : [new Offer('a named condition…', ['kind' => 'named'], 'More')];
    }

    public static function read(Context $context, Node $node, Row $row): ?self
    {
        $name = $node->child('name')->text() ?? '';
        $offers = static fn (): array => array_map(
            static fn (string $known): Offer => new Offer($known, $known),
            $context->directory->namedConditions($context->type->name),
        );
        $file = $context->directory->namedCondition($context->type->name, $name);
        $context->word('it is one of', WordRole::Glue, $node->child('field')->at, Subjects::chooser($context, $node));
        if ($file === null) {
            return $context->gap(
                $name === '' ? 'choose a named condition' : $name,
                $node->child('name')->at,
                Editor::choose('Named conditions', $offers),
                'unknown_named',
                $name === '' ? Words::say('Choose a named condition.') : Words::say(
                    'There is no named condition ‘{name}’ for {records}.',
                    name: $name,
                    records: $context->type->plural,
                ),
            );
        }
        $context->choice("‘{$name}’", WordRole::Value, $node->child('name')->at, $offers, 'Named conditions');
        // A named condition cannot name another one, so a reading always ends.
        $inner = new Context($context->schema, new WithoutNamed($context->directory), $context->type, $context->zone);
        $condition = ConditionReader::read($inner, new Node($file));

        return $condition === null
            ? $context->problem(
                $node->child('name')->at,
                'broken_named',
                Words::say(
                    'The named condition ‘{name}’ has to be mended first: {message}',
                    name: $name,
                    message: $inner->sheet->problems[0]->message ?? Words::say('it is not finished.'),
                ),
            )
            : new self($condition, $row->text());
    }

    public function compile(): Closure
    {
        return $this->of->compile();
    }

    public function query(QueryWriter $writer): mixed
    {
        return $this->of->query($writer);
    }

    public function explain(View $view, Display $display): Finding
    {
        $finding = $this->of->explain($view, $display);

        return new Finding(
            $this->text,
            $finding->held,
            $finding->parts === [] ? $finding->seen : null,
            $finding->parts === [] ? [] : [$finding],
        );
    }

    public function paths(): array
    {
        return $this->of->paths();
    }

    public function parts(): array
    {
        return [$this->of];
    }

    public function truth(array $truths): ?bool
    {
        return $truths[0];
    }
}
