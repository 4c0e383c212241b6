<template>
  <svg viewBox="0 0 20 20" class="size-5" aria-hidden="true">
    <path d="M2.5 2v16H8v-6h4v6h5.500V2M2.500 2H7v5h6V2h4.500" fill="none" stroke="currentColor" stroke-width="2" />
    <path d="M6 15h8" stroke="var(--act)" stroke-width="2" />
  </svg>
</template>
