<?php

declare(strict_types=1);

namespace App\Http\People;

use App\Http\PersonGiven;
use App\Models\Access\StoredRole;
use App\Models\Library\StoredCalendar;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

final class PersonInput extends FormRequest
{
    /** At most as much as fits its column, with no more than two places behind the point. */
    private const MONEY = '/^\d{1,13}(\.\d{1,2})?$/';

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'name' => 'sometimes|string|max:120', 'email' => 'sometimes|email|max:190',
            'role' => ['sometimes', 'bail', 'string', 'ascii', Rule::exists(StoredRole::class, 'name')],
            'team' => 'sometimes|string|max:80',
            'timeZone' => 'sometimes|timezone',
            'calendarId' => ['sometimes', 'nullable', 'integer', Rule::exists(StoredCalendar::class, 'id')],
            'managerId' => ['sometimes', 'nullable', new PersonGiven], 'deputyId' => ['sometimes', 'nullable', new PersonGiven],
            'active' => 'sometimes|boolean',
            'limit' => ['sometimes', 'nullable', 'regex:'.self::MONEY], 'limits' => 'sometimes|array|max:50',
            'limits.*' => ['required', 'regex:'.self::MONEY],
        ];
    }
}
