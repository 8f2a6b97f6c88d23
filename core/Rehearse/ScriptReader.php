<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use VividLedger\Formula\ComputedFields;
use VividLedger\House\Names;
use VividLedger\Record\EventKind;
use VividLedger\Record\InvalidValue;
use VividLedger\Record\Record;
use VividLedger\Record\Value;
use VividLedger\Rehearse\WhatIf\CallFails;
use VividLedger\Rehearse\WhatIf\DayOff;
use VividLedger\Rehearse\WhatIf\FieldsChange;
use VividLedger\Rehearse\WhatIf\SignOffAnswered;
use VividLedger\Rehearse\WhatIf\SlipReturned;
use VividLedger\Rehearse\WhatIf\SomebodyAway;
use VividLedger\Rehearse\WhatIf\TaskIsDone;
use VividLedger\Rehearse\WhatIf\WhatIf;
use VividLedger\Rehearse\WhatIf\WordArrives;
use VividLedger\Rule\Trigger\Opening;
use VividLedger\Rule\Trigger\OpeningKind;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Schema;
use VividLedger\Shape\Node;
use VividLedger\SignOff\Answer;
use VividLedger\Words\Words;

/** Reads the opening and the what-ifs of a rehearsal from JSON, and writes openings back. */
final readonly class ScriptReader
{
    public function __construct(private Schema $schema, private Names $names)
    {
    }

    /**
     * @param  array<mixed>  $raw  {"kind", "at", "was", "set", "text", "related", "from"}
     *
     * @throws InvalidScript
     */
    public function opening(array $raw, RecordType $type): Opening
    {
        $node = new Node($raw, '/opening');
        $kind = OpeningKind::tryFrom($node->child('kind')->text() ?? '') ?? throw new InvalidScript(
            '/opening/kind',
            Words::say('Say what happens first.'),
        );
        $related = $node->child('related');
        $about = $type;
        $pair = null;
        if ($kind === OpeningKind::Related) {
            $about = $this->schema->type($related->child('type')->text() ?? '') ?? throw new InvalidScript(
                '/opening/related/type',
                Words::say('Say which related record it is.'),
            );
            $id = $related->child('id')->raw;
            $pair = [$about->name, is_int($id) ? $id : 0];
        }

        return new Opening(
            kind: $kind, at: $this->moment($node->child('at')), was: $this->values($node->child('was'), $type),
            set: $this->values($node->child('set'), $about), text: mb_substr($node->child('text')->text() ?? '', 0, 2000), related: $pair,
            from: self::sender($node),
        );
    }

    /** @return array<string, mixed> */
    public static function written(Opening $opening): array
    {
        return [
            'kind' => $opening->kind->value, 'at' => Value::instantText($opening->at), 'was' => (object) $opening->was,
            'set' => (object) $opening->set, 'text' => $opening->text, 'from' => $opening->from,
            'related' => $opening->related === null ? null : ['type' => $opening->related[0], 'id' => $opening->related[1]],
        ];
    }

    /**
     * @param  array<mixed>  $raw
     * @return list<WhatIf>
     *
     * @throws InvalidScript
     */
    public function whatIfs(array $raw, RecordType $type): array
    {
        $whatIfs = [];
        foreach ((new Node($raw, '/whatIfs'))->items() as $node) {
            $whatIfs[] = $this->whatIf($node, $type);
        }

        return $whatIfs;
    }

    /**
     * Values by field name, normalised.
     *
     * @return array<string, string|int|bool|null>
     *
     * @throws InvalidScript
     */
    public function values(Node $node, RecordType $type): array
    {
        $values = [];
        foreach (is_array($node->raw) ? $node->raw : [] as $name => $raw) {
            $field = $type->field((string) $name) ?? throw new InvalidScript(
                "{$node->at}/{$name}",
                Words::say('{type} has no field ‘{name}’.', type: $type->label, name: $name),
            );
            try {
                $values[$field->name] = Value::of($field, $raw);
            } catch (InvalidValue $invalid) {
                throw new InvalidScript("{$node->at}/{$name}", $invalid->getMessage());
            }
        }

        return $values;
    }

    public function record(Node $node, RecordType $type, int $id, int $version): Record
    {
        $values = [];
        foreach ($this->values($node, $type) + array_fill_keys(array_keys($type->fields), null) as $name => $value) {
            $values[$name] = $value === null && $type->fields[$name]->type === \VividLedger\Schema\FieldType::Tick ? false : $value;
        }

        return new Record($type->name, $id, $version, ComputedFields::with($type, $values));
    }

    private function whatIf(Node $node, RecordType $type): WhatIf
    {
        switch ($node->kind()) {
            case FieldsChange::kind():
                $set = $this->values($node->child('set'), $type);

                return $set === [] ? throw new InvalidScript(
                    "{$node->at}/set",
                    Words::say('Choose the field that changes.'),
                ) : new FieldsChange($this->moment($node->child('at')), $set);
            case CallFails::kind():
                $call = $node->child('call')->raw;

                return new CallFails(is_int($call) && $call > 0 ? $call : 1);
            case SlipReturned::kind():
                $slip = $node->child('slip')->raw;
                $answers = $node->child('answers')->raw;

                return new SlipReturned(
                    $this->moment($node->child('at')),
                    is_int($slip) && $slip > 0 ? $slip : 1,
                    is_array($answers) ? $answers : [],
                );
            case SignOffAnswered::kind():
                $signOff = $node->child('sign_off')->raw;

                return new SignOffAnswered(
                    $this->moment($node->child('at')),
                    is_int($signOff) && $signOff > 0 ? $signOff : 1,
                    Answer::tryFrom($node->child('answer')->text() ?? '') ?? Answer::Yes,
                    $node->child('comment')->text() ?? '',
                );
            case TaskIsDone::kind():
                $task = $node->child('task')->raw;

                return new TaskIsDone($this->moment($node->child('at')), is_int($task) && $task > 0 ? $task : 1);
            case WordArrives::kind():
                $event = $node->child('event')->text() === 'comment' ? EventKind::Comment : EventKind::Reply;

                return new WordArrives(
                    $this->moment($node->child('at')),
                    $event,
                    $node->child('text')->text() ?? '',
                    self::sender($node),
                );
            case SomebodyAway::kind():
                $person = $node->child('person')->raw;
                $name = is_int($person) ? $this->names->person($person)?->name : null;
                if (! is_int($person) || $name === null) {
                    throw new InvalidScript("{$node->at}/person", Words::say('Choose who is absent.'));
                }

                return new SomebodyAway($person, $name, $this->moment($node->child('at')), $this->moment($node->child('until')));
            case DayOff::kind():
                $day = $node->child('day')->text() ?? '';
                if (preg_match('/^(\d{4})-(\d{2})-(\d{2})$/', $day, $part) !== 1
                    || ! checkdate((int) $part[2], (int) $part[3], (int) $part[1])) {
                    throw new InvalidScript("{$node->at}/day", Words::say('Give a day, such as 2026-12-25.'));
                }

                return new DayOff($day);
        }

        throw new InvalidScript("{$node->at}/kind", Words::say('That cannot be supposed.'));
    }

    private static function sender(Node $node): string
    {
        return mb_substr($node->child('from')->text() ?? '', 0, 200);
    }

    private function moment(Node $node): \DateTimeImmutable
    {
        $text = $node->text() ?? '';
        if (preg_match('/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(:\d{2})?(\.\d+)?(Z|[+-]\d{2}:\d{2})$/', $text) !== 1) {
            throw new InvalidScript($node->at, Words::say('Give a moment with its zone, such as 2026-11-24T09:40:00Z.'));
        }

        return new \DateTimeImmutable($text);
    }
}
