<?php

declare(strict_types=1);

namespace VividLedger\Record;

/** A value beyond a bound, where the rule says that such a save is refused. */
final class RefusedValue extends \DomainException
{
}
