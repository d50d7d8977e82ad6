module.exports = (api) => {
  // Tests stand in for whole rooms, and a server of one who changes doors must see the change.
  const isBuilt = api.caller((caller) => caller?.name === 'metro' && caller.isDev === false);
  return {
    presets: ['babel-preset-expo'],
    plugins: isBuilt ? ['./scripts/doors.cjs', './scripts/slim.cjs'] : [],
  };
};
