<?php

declare(strict_types=1);

namespace App\Models;

/** What a person may do, always judged on the server. */
enum Role: string
{
    case Administrator = 'administrator';
    case Manager = 'manager';
    case Member = 'member';
    case Auditor = 'auditor';

    public function mayEditRecords(): bool
    {
        return $this !== self::Auditor;
    }

    public function mayEditRules(): bool
    {
        return $this === self::Administrator;
    }

    /** Whether they see who came in when, and what was changed about that. */
    public function maySeeDoors(): bool
    {
        return $this === self::Administrator || $this === self::Auditor;
    }

    /** Whether they see every letter that left the house, whoever it was for: links that let somebody in stand in some. */
    public function maySeeMailRoom(): bool
    {
        return $this === self::Administrator;
    }

    /** Whether they complete other people's tasks too. */
    public function mayDoAllTasks(): bool
    {
        return $this === self::Administrator || $this === self::Manager;
    }
}
