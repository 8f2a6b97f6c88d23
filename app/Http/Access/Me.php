<?php

declare(strict_types=1);

namespace App\Http\Access;

use App\Http\People\PreferencesResource;
use OpenApi\Attributes as OA;

/** The person who is signed in, and what they may do. */
#[OA\Schema]
final readonly class Me
{
    /** @param  list<string>  $duties */
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property]
        public string $handle,
        #[OA\Property]
        public string $name,
        #[OA\Property]
        public string $email,
        #[OA\Property(description: 'The name of their role.')]
        public string $role,
        #[OA\Property]
        public string $company,
        #[OA\Property]
        public string $timeZone,
        #[OA\Property(format: 'date-time')]
        public string $now,
        #[OA\Property]
        public bool $mayEditRecords,
        #[OA\Property]
        public bool $mayEditRules,
        #[OA\Property]
        public bool $mayDoAllTasks,
        #[OA\Property(description: 'The largest file that can be put on a record, in bytes.')]
        public int $fileBytes,
        #[OA\Property(description: 'Whether the mail room is there.')]
        public bool $hasMailRoom,
        #[OA\Property(description: 'Whether signing in asks for a code of their authenticator application too.')]
        public bool $hasSecondFactor,
        #[OA\Property(description: 'So many recovery codes are left.')]
        public int $recoveryCodes,
        #[OA\Property]
        public string $roleLabel,
        #[OA\Property(description: 'What their role is trusted with.', items: new OA\Items(type: 'string'))]
        public array $duties,
        #[OA\Property(description: 'Whether no record and no field is kept from them.')]
        public bool $seesAll,
        #[OA\Property(description: 'Which language they have chosen; null for that of their browser.', nullable: true)]
        public ?string $language,
        #[OA\Property(description: 'In which language they are answered.')]
        public string $spoken,
        #[OA\Property]
        public PreferencesResource $preferences,
    ) {
    }
}
