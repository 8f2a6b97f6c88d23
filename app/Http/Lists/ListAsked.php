<?php

declare(strict_types=1);

namespace App\Http\Lists;

use App\Http\Types\FieldResources;
use App\Store\Access\AccessScope;
use App\Store\Access\SeenContext;
use App\Store\DomainError;
use App\Store\RefusedFor;
use App\Store\Rules\RuleStore;
use VividLedger\Condition\Condition;
use VividLedger\Condition\ConditionReader;
use VividLedger\Listing\Column;
use VividLedger\Listing\Columns;
use VividLedger\Listing\ListView;
use VividLedger\Listing\ListViewReader;
use VividLedger\Listing\Sort;
use VividLedger\Schema\Path;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\KeyTracker;
use VividLedger\Shape\Node;
use VividLedger\Words\Words;

/** How somebody asks to see the records of a type: narrowed, in columns, sorted. */
final readonly class ListAsked
{
    public function __construct(private AccessScope $inSight, private FieldResources $fields, private SeenContext $seen)
    {
    }

    /** @throws DomainError when the filter cannot be read */
    public function condition(RecordType $type, string $json): ?Condition
    {
        $filter = $json === '' ? null : json_decode($json, true, 64);

        return $filter === null ? null : $this->read($type, $filter);
    }

    /** @throws DomainError with each problem at its place */
    public function read(RecordType $type, mixed $filter): Condition
    {
        $context = $this->seen->of($type);
        $reads = new KeyTracker;
        $condition = ConditionReader::read($context, new Node($filter, '/filter', $reads));
        array_push($context->sheet->problems, ...$reads->unknown($filter, $context->sheet->problems, '/filter'));

        return ($context->sheet->problems === [] ? $condition : null) ?? throw new DomainError(
            'invalid_filter',
            $context->sheet->problems[0]->message ?? Words::say('The filter cannot be read.'),
            RefusedFor::Invalid,
            RuleStore::listed($context->sheet->problems),
        );
    }

    /**
     * @param  string  $written  "-due,number"
     * @return list<Sort>
     *
     * @throws DomainError when there is no such column
     */
    public function sorts(RecordType $type, string $written): array
    {
        $columns = new Columns($this->inSight->schema(), $type);

        return array_map(static fn (string $one): Sort => $columns->sort($one) ?? throw self::unknown($type, ltrim($one, '-'), '/sort'),
            $written === '' ? [] : explode(',', $written));
    }

    /**
     * @param  string  $written  "due:98,customer.plan"; what is not there any more is left out
     * @return list<Column>
     */
    public function columns(RecordType $type, string $written): array
    {
        return $this->view($type, ['columns' => $written === '' ? [] : explode(',', $written)])->columns;
    }

    /** @param  array<array-key, mixed>  $kept */
    public function view(RecordType $type, array $kept): ListView
    {
        return (new ListViewReader($this->inSight->schema(), $type))->read($kept);
    }

    /** @throws DomainError when there is no such field, or no number field */
    public function by(RecordType $type, string $written, string $at): Path
    {
        return (new Columns($this->inSight->schema(), $type))->named($written)->path ?? throw self::unknown($type, $written, $at);
    }

    public function resource(RecordType $type, Column $column): ColumnResource
    {
        $on = $type->name;
        foreach ($column->path->hops ?? [] as $hop) {
            $on = $this->inSight->schema()->behind($hop)->name ?? $on;
        }

        return new ColumnResource(
            $column->of, $column->label, $column->width, $column->isSortable(),
            $column->path === null ? null : $this->fields->of($on, $column->path->field),
        );
    }

    private static function unknown(RecordType $type, string $name, string $at): DomainError
    {
        return new DomainError('unknown_field', Words::say(
            '{type} has no column ‘{name}’.',
            type: $type->label,
            name: $name,
        ), RefusedFor::Invalid, [
            ['at' => $at, 'code' => 'unknown_field', 'message' => Words::say('There is no column ‘{name}’.', name: $name)],
        ]);
    }
}
