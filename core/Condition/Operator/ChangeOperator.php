<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

use Closure;
use VividLedger\Facts\View;
use VividLedger\Schema\Field;

/** An operator that looks at the change which started the rule, and so only fits fields of the record itself. */
interface ChangeOperator extends Operator
{
    /**
     * @param  list<string|int|bool>  $operands
     * @return Closure(View): bool
     */
    public function judge(Field $field, array $operands): Closure;

    /** Whether the field has to change for it to hold. */
    public function asksChange(): bool;
}
