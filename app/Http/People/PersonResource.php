<?php

declare(strict_types=1);

namespace App\Http\People;

use App\Http\Describe\SaysObjects;
use OpenApi\Attributes as OA;

/** Someone who works with the application. */
#[OA\Schema]
final readonly class PersonResource implements \JsonSerializable
{
    use SaysObjects;

    /**
     * @param  array<string, string>  $limits
     * @param  list<AbsenceResource>  $absences
     */
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property]
        public string $handle,
        #[OA\Property]
        public string $name,
        #[OA\Property]
        public string $email,
        #[OA\Property]
        public string $role,
        #[OA\Property]
        public string $team,
        #[OA\Property]
        public ?int $managerId,
        #[OA\Property]
        public string $timeZone,
        #[OA\Property(description: 'The working calendar of their own; null for that of their team or of the company.')]
        public ?int $calendarId,
        #[OA\Property]
        public bool $active,
        #[OA\Property(description: 'Up to how much money they may sign off; null for nothing.')]
        public ?string $limit,
        #[OA\Property(description: 'Limits that differ for a record type, by its name.', type: 'object', additionalProperties: true)]
        public array $limits,
        #[OA\Property(description: 'Who stands in for them while they are absent.')]
        public ?int $deputyId,
        #[OA\Property(description: 'Whether they are absent now.')]
        public bool $away,
        #[OA\Property(description: 'Whether they have come in; otherwise they are only invited.')]
        public bool $hasJoined,
        #[OA\Property(description: 'Whether signing in asks them for a code as well.')]
        public bool $hasSecondFactor,
        #[OA\Property(description: 'Now and to come.', items: new OA\Items(type: AbsenceResource::class))]
        public array $absences,
    ) {
    }
}
