<?php

declare(strict_types=1);

namespace App\Http\Input;

use Illuminate\Foundation\Http\FormRequest;

final class PersonInput extends FormRequest
{
    /** At most as much as fits its column, with no more than two places behind the point. */
    private const MONEY = '/^\d{1,13}(\.\d{1,2})?$/';

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'managerId' => 'sometimes|nullable', 'deputyId' => 'sometimes|nullable', 'active' => 'sometimes|boolean',
            'limit' => ['sometimes', 'nullable', 'regex:'.self::MONEY], 'limits' => 'sometimes|array|max:50',
            'limits.*' => ['required', 'regex:'.self::MONEY],
        ];
    }
}
