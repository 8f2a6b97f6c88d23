<?php

declare(strict_types=1);

namespace App\Http\Records;

use Illuminate\Foundation\Http\FormRequest;

final class GuardResetInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['why' => 'present|nullable|string|max:200'];
    }
}
