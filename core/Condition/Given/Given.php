<?php

declare(strict_types=1);

namespace VividLedger\Condition\Given;

use VividLedger\Engine\View;
use VividLedger\Schema\Field;

/** What a field is compared with when it is not a value written in the rule but one found when the rule is judged. */
interface Given
{
    public static function kind(): string;

    public function value(View $view, Field $for): string|int|bool|null;

    public function wording(): string;
}
