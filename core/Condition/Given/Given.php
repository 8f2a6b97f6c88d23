<?php

declare(strict_types=1);

namespace VividLedger\Condition\Given;

use VividLedger\Condition\QueryWriter;
use VividLedger\Facts\View;
use VividLedger\Schema\Field;
use VividLedger\Schema\Path;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;

/** What a field is compared with when it is not a value written in the rule but one found when the rule is judged. */
interface Given
{
    public static function kind(): string;

    /** How it is written, printed and said. */
    public static function shape(): Shape;

    /** Whether a field can be compared with it. */
    public static function fits(Field $field): bool;

    /**
     * Reads it and words it; null when unfinished.
     *
     * @param  Editor  $editor  with which something else is chosen
     */
    public static function read(Context $context, Node $node, Field $field, Editor $editor): ?self;

    /** @return list<Offer> what it is offered as, besides a value */
    public static function offers(Context $context, Node $node, Field $field): array;

    public function value(View $view, Field $for): string|int|bool|null;

    /** @return list<Path> what it reads of the record */
    public function paths(): array;

    /**
     * @template Q
     *
     * @param  QueryWriter<Q>  $writer
     * @return Q
     */
    public function query(QueryWriter $writer, Field $for): mixed;
}
