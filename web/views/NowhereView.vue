<template>
  <main class="nowhere">
    <h1>There is nothing at this address.</h1>
    <RouterLink to="/">Go to the projects</RouterLink>
  </main>
</template>

<style scoped>
.nowhere {
  display: grid;
  gap: var(--gap-wide);
  padding: var(--gap-broad);
}
</style>
