<?php

declare(strict_types=1);

namespace App\Http\Lists;

use Illuminate\Foundation\Http\FormRequest;

final class FilterTextInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['text' => 'present|nullable|string|max:5000'];
    }
}
