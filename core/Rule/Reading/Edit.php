<?php

declare(strict_types=1);

namespace VividLedger\Rule\Reading;

/** How a word can be changed in place. */
enum Edit: string
{
    case Trigger = 'trigger';
    case WatchedFields = 'watched_fields';
    case Group = 'group';
    case Field = 'field';
    case Operator = 'operator';
    case Operand = 'operand';
    case Guard = 'guard';
    case SetField = 'set_field';
    case SetValue = 'set_value';
    case Title = 'title';
    case Person = 'person';
    case Due = 'due';
}
