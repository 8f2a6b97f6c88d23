<?php

declare(strict_types=1);

namespace VividLedger\Condition\Given;

use VividLedger\Facts\View;
use VividLedger\Schema\Field;
use VividLedger\Shape\Shape;

/** What a field is compared with when it is not a value written in the rule but one found when the rule is judged. */
interface Given
{
    public static function kind(): string;

    /** How it is written, printed and said. */
    public static function shape(): Shape;

    public function value(View $view, Field $for): string|int|bool|null;

    public function wording(): string;
}
