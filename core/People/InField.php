<?php

declare(strict_types=1);

namespace VividLedger\People;

use VividLedger\Facts\View;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Path;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Words\Words;

/** The person in a field of the record or of one it refers to: "the Customer › Owner". */
final readonly class InField implements PersonExpression
{
    public function __construct(private Path $path)
    {
    }

    public static function kind(): string
    {
        return 'in_field';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('the {path}')->orSaid('the person in {path}', 'whoever is in {path}', '{path} person')
            ->slot('path', new PersonPath);
    }

    public static function read(Context $context, Node $node): ?self
    {
        $name = $node->child('path')->text() ?? '';
        $path = $context->schema->path($context->type, $name);
        if ($path === null || $path->field->type !== FieldType::Person) {
            return $context->problem(
                $node->at,
                'unknown_field',
                Words::say('{type} has no field ‘{name}’ that holds a person.', type: $context->type->label, name: $name),
            );
        }

        return new self($path);
    }

    public function find(View $view): Found
    {
        $id = $view->value($this->path);
        $person = is_int($id) ? $view->facts->person($id) : null;

        return new Found($person, $person === null ? "{$this->path->label()} is empty" : "{$this->path->label()} {$person->name}");
    }

    public function route(): Route
    {
        return new Route($this->path);
    }
}
