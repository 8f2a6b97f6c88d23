<?php

declare(strict_types=1);

namespace App\Http\People;

use Illuminate\Foundation\Http\FormRequest;

final class PeopleListInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['text' => 'present|nullable|string|max:400000'];
    }
}
