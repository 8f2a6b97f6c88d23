<?php

declare(strict_types=1);

namespace App\Http\Library;

use App\Http\PersonGiven;
use App\Models\People\Person;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

final class CalendarInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'version' => 'nullable|integer', 'name' => 'present|nullable|string', 'timeZone' => 'required|string',
            'hours' => 'present|array', 'holidays' => 'present|array', 'company' => 'required|boolean', 'teams' => 'present|array|list',
            'teams.*' => ['string', Rule::exists(Person::class, 'team')], 'people' => 'present|array|list',
            'people.*' => ['required', new PersonGiven],
        ];
    }
}
