<script lang="ts">
    import { Input } from 'flowbite-svelte';
    /* A time of day, typed as "09:00". */
    type Props = { value: string; label?: string };
    let { value = $bindable(), label = 'Time of day' }: Props = $props();
</script>

<Input
    class="figures w-20!"
    type="text"
    inputmode="numeric"
    placeholder="09:00"
    maxlength={5}
    pattern="([01][0-9]|2[0-3]):[0-5][0-9]|24:00"
    aria-label={label}
    bind:value
/>
