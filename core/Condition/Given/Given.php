<?php

declare(strict_types=1);

namespace VividLedger\Condition\Given;

use VividLedger\Condition\QueryWriter;
use VividLedger\Facts\View;
use VividLedger\Schema\Field;
use VividLedger\Schema\Path;
use VividLedger\Shape\Shape;
use VividLedger\Shape\WordRole;

/** What a field is compared with when it is not a value written in the rule but one found when the rule is judged. */
interface Given
{
    public static function kind(): string;

    /** How it is written, printed and said. */
    public static function shape(): Shape;

    public function value(View $view, Field $for): string|int|bool|null;

    /** What it is said to be on a page. */
    public function role(): WordRole;

    /** @return list<Path> what it reads of the record */
    public function paths(): array;

    /**
     * @template Q
     *
     * @param  QueryWriter<Q>  $writer
     * @return Q
     */
    public function query(QueryWriter $writer, Field $for): mixed;

    public function wording(): string;
}
